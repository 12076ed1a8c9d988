import prettier from "eslint-config-prettier";
import vue from "eslint-plugin-vue";
import ts from "typescript-eslint";

export default ts.config(
  { ignores: ["src/api/schema.d.ts", "dist"] },
  ...ts.configs.recommended,
  ...vue.configs["flat/recommended"],
  prettier,
  {
    files: ["**/*.vue"],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  {
    files: ["src/**"],
    ignores: ["src/measure.ts", "**/*.test.ts"],
    rules: {
      "no-restricted-syntax": [
        "error",
        { selector: "Literal[raw=/^(8128|1016|127)$/]", message: "Ticks have names in measure.ts." },
      ],
    },
  },
  {
    rules: {
      "vue/multi-word-component-names": "off",
      "vue/require-default-prop": "off", // an optional property is undefined, as its type says
      "vue/max-len": ["error", { code: 120, template: 120 }],
    },
  },
);
