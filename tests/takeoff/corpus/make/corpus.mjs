// Where the files of the corpus go; the same as corpus.py for what is written by JavaScript.
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const CORPUS = dirname(dirname(fileURLToPath(import.meta.url)));

export function writer(name) {
  const folder = join(CORPUS, name);
  mkdirSync(folder, { recursive: true });
  const truth = {};
  return {
    path: (file) => join(folder, file),
    /** Writes a file and the list it ought to become: rows of name, how many, length, width, thickness in mm. */
    file(file, content, parts, unit = "", says = "") {
      writeFileSync(join(folder, file), content);
      truth[file] = { parts, ...(unit && { unit }), ...(says && { says }) };
    },
    done() {
      const lines = Object.entries(truth).map(([file, holds]) => `${JSON.stringify(file)}: ${JSON.stringify(holds)}`);
      writeFileSync(join(folder, "truth.json"), `{\n${lines.join(",\n")}\n}\n`);
    },
  };
}
