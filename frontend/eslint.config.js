import i18n from "@intlify/eslint-plugin-vue-i18n";
import prettier from "eslint-config-prettier";
import vue from "eslint-plugin-vue";
import ts from "typescript-eslint";

/** Attributes that are read or spoken. */
const SPOKEN = [
  "aria-label",
  "alt",
  "title",
  "label",
  "placeholder",
  "description",
  "confirm-button-text",
  "text",
];

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
    // Every word of a screen can be said in another language.
    files: ["src/**/*.vue"],
    plugins: { "@intlify/vue-i18n": i18n },
    rules: {
      "@intlify/vue-i18n/no-raw-text": [
        "error",
        {
          ignorePattern: "^[^\\p{L}]*$|^\\P{L}*\\p{L}\\P{L}*$",
          ignoreText: ["Vivid Plank", "=W - 2 * stock"],
          attributes: { "/.+/": SPOKEN },
        },
      ],
    },
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
      "vue/max-len": [
        "error",
        { code: 120, template: 120, ignoreStrings: true, ignoreHTMLTextContents: true },
      ],
    },
  },
);
