/** `words.json`: every sentence of the screens, for whoever translates them. `npm run words` writes it anew. */
import { readdirSync, readFileSync } from "node:fs";
import ts from "typescript";
import { expect, it } from "vitest";
import { compileScript, parse } from "vue/compiler-sfc";

const SOURCES = new URL("../", import.meta.url).pathname;

/** A file as script: of a component its template as well, as the compiler writes it. */
function scriptOf(file: string): string {
  const source = readFileSync(file, "utf8");
  if (!file.endsWith(".vue")) return source;
  return compileScript(parse(source, { filename: file }).descriptor, { id: file, inlineTemplate: true })
    .content;
}

/** A literal, or those that are chosen between. */
function eitherOf(node: ts.Expression, file: string): string[] {
  if (ts.isConditionalExpression(node))
    return [node.whenTrue, node.whenFalse].flatMap((one) => eitherOf(one, file));
  if (!ts.isStringLiteralLike(node)) throw new Error(`${file}: ${node.getText()}: no literal`);
  return [node.text];
}

/** The sentences that a file asks for: the literal first argument of `t` or `$t`, the `keypath` of an `I18nT`. */
function sentences(file: string): string[] {
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node)) {
      const called = ts.isPropertyAccessExpression(node.expression) ? node.expression.name : node.expression;
      if (ts.isIdentifier(called) && ["t", "$t"].includes(called.text)) {
        const [first] = node.arguments;
        if (!first || !ts.isStringLiteralLike(first))
          throw new Error(`${file}: ${node.getText()}: no literal`);
        found.push(first.text);
      }
    }
    if (ts.isPropertyAssignment(node) && ts.isIdentifier(node.name) && node.name.text === "keypath") {
      found.push(...eitherOf(node.initializer, file));
    }
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile(file, scriptOf(file), ts.ScriptTarget.Latest, true));
  return found;
}

it("lists every sentence of the screens once", async () => {
  const files = readdirSync(SOURCES, { recursive: true, encoding: "utf8" }).filter(
    (file) => /\.(vue|ts)$/.test(file) && !/\.test\.ts$|\.d\.ts$|^i18n/.test(file),
  );
  const all = [...new Set(files.flatMap((file) => sentences(SOURCES + file)))].sort();
  expect(all.length).toBeGreaterThan(1000);
  await expect(JSON.stringify(all, null, 2) + "\n").toMatchFileSnapshot("words.json");
}, 120_000); // every file is read and compiled
