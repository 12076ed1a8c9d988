/** What the grid of parts can do without a screen: order, filter, and a pasted block as edits. */
import type { Part } from "../../api/client";
import { MeasureError, parse, type System } from "../../measure";
import { t } from "../../i18n/i18n";

export type Order = "entered" | "grouped" | "longest";

/** Columns a block can be pasted into, in the order they stand. */
export const COLUMNS = [
  "id",
  "name",
  "quantity",
  "length",
  "width",
  "thickness",
  "species",
  "faces",
  "run",
  "note",
] as const;
export type Column = (typeof COLUMNS)[number];

/** Faces as the list says them. */
export const FACES: Record<Part["faces"], string> = {
  "clear-two": t("two clear"),
  "clear-one": t("one clear"),
  sound: t("sound"),
};
const FACES_READ: Record<string, Part["faces"]> = {
  "clear-two": "clear-two",
  "two clear": "clear-two",
  "2": "clear-two",
  "clear-one": "clear-one",
  "one clear": "clear-one",
  "1": "clear-one",
  sound: "sound",
  "0": "sound",
};

export function ordered(parts: Part[], order: Order, filter: string): Part[] {
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const text = (p: Part) =>
    [p.id, p.name, p.species, p.note, p.run, p.match, p.same_board, p.from_board, p.figure, p.stock, p.joint]
      .join(" ")
      .toLowerCase();
  const kept = words.length ? parts.filter((p) => words.every((w) => text(p).includes(w))) : [...parts];
  if (order === "longest") return kept.sort((a, b) => b.length - a.length || b.width - a.width);
  if (order === "grouped")
    return kept.sort(
      (a, b) => a.species.localeCompare(b.species) || b.thickness - a.thickness || b.length - a.length,
    );
  return kept;
}

/** The heading a part stands under where the list is grouped. */
export function groupOf(part: Part): string {
  return `${part.species}|${part.thickness}`;
}

/** One cell's text as the value of its column; an Error says why it is none. */
export function cellValue(column: Column, text: string, system: System): Partial<Part> {
  const plain = text.trim();
  if (column === "length" || column === "width" || column === "thickness") {
    try {
      return { [column]: parse(plain, system) };
    } catch (problem) {
      throw new Error(
        `'${plain}' ${problem instanceof MeasureError ? problem.why : t("cannot be read as a length")}`,
      );
    }
  }
  if (column === "quantity") {
    const n = Number(plain.replace(/\s*[x×]\s*/i, ""));
    if (!Number.isInteger(n) || n < 1) throw new Error(t("'{plain}' is no count", { plain }));
    return { quantity: n };
  }
  if (column === "faces") {
    const faces = FACES_READ[plain.toLowerCase()];
    if (!faces)
      throw new Error(
        t("'{plain}' is no quality of faces; expected two clear, one clear or sound", { plain }),
      );
    return { faces };
  }
  if ((column === "id" || column === "species") && !plain)
    throw new Error(column === "id" ? t("a part needs a mark") : t("a part needs a wood"));
  return { [column]: plain };
}

/**
 * A block of cells over the rows from `row` and the columns from `column`; rows past the end are
 * left, and counted.
 */
export function pastedBlock(
  rows: Part[],
  row: number,
  column: Column,
  text: string,
  system: System,
): { puts: (Part & { was: string })[]; over: number; wrong: string[] } {
  const lines = text
    .replace(/\r\n?/g, "\n")
    .replace(/\n$/, "")
    .split("\n")
    .map((l) => l.split("\t"));
  const first = COLUMNS.indexOf(column);
  const wrong: string[] = [];
  const puts: (Part & { was: string })[] = [];
  lines.forEach((cells, i) => {
    const part = rows[row + i];
    if (!part) return;
    let next = { ...part, was: part.id };
    cells.forEach((cell, k) => {
      const name = COLUMNS[first + k];
      if (!name) return;
      try {
        next = without({ ...next, ...cellValue(name, cell, system) }, name);
      } catch (problem) {
        wrong.push(`${part.id}: ${(problem as Error).message}`);
      }
    });
    puts.push(next);
  });
  return { puts, over: Math.max(0, lines.length - (rows.length - row)), wrong };
}

/** The part without the formula of a field that now has a figure of its own. */
export function without<T extends Part>(part: T, name: string): T {
  if (!(name in part.formulas)) return part;
  const formulas = { ...part.formulas };
  delete formulas[name];
  return { ...part, formulas };
}
