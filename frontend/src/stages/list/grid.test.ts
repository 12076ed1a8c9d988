import { describe, expect, it } from "vitest";
import { aPart, IN } from "../../test/making";
import { cellValue, ordered, pastedBlock, without } from "./grid";

const parts = [
  aPart({ id: "A", name: "Shelf", species: "oak", length: 20 * IN, thickness: IN }),
  aPart({ id: "B", name: "Side", species: "ash", length: 30 * IN, thickness: IN / 2 }),
  aPart({ id: "C", name: "Back rail", species: "oak", length: 25 * IN, thickness: IN * 2, note: "curved" }),
];
const ids = (list: { id: string }[]) => list.map((p) => p.id).join("");

describe("the order of the list", () => {
  it("is as entered, by wood and thickness, or longest first", () => {
    expect(ids(ordered(parts, "entered", ""))).toBe("ABC");
    expect(ids(ordered(parts, "grouped", ""))).toBe("BCA");
    expect(ids(ordered(parts, "longest", ""))).toBe("BCA");
  });
  it("leaves the list itself alone", () => {
    ordered(parts, "longest", "");
    expect(ids(parts)).toBe("ABC");
  });
  it("keeps parts that have every word somewhere", () => {
    expect(ids(ordered(parts, "entered", "oak curv"))).toBe("C");
    expect(ids(ordered(parts, "entered", "OAK"))).toBe("AC");
    expect(ordered(parts, "entered", "walnut")).toEqual([]);
  });
});

describe("one cell", () => {
  it.each([
    ["length", "2 3/16", { length: 17780 }],
    ["quantity", "3x", { quantity: 3 }],
    ["faces", "two clear", { faces: "clear-two" }],
    ["note", " x ", { note: "x" }],
  ] as const)("%s reads %s", (column, text, value) => expect(cellValue(column, text, "in")).toEqual(value));
  it.each([
    ["length", "long"],
    ["quantity", "some"],
    ["quantity", "0"],
    ["faces", "pretty"],
    ["species", " "],
    ["id", ""],
  ] as const)("%s refuses %s", (column, text) => expect(() => cellValue(column, text, "in")).toThrow());
});

describe("a block pasted over cells", () => {
  it("goes down and across from the cell, and counts what lies below the list", () => {
    const found = pastedBlock(parts, 1, "length", "10\t3\n11\t4\n12\t5\n", "in");
    expect(found.puts.map((p) => [p.was, p.length / IN, p.width / IN])).toEqual([
      ["B", 10, 3],
      ["C", 11, 4],
    ]);
    expect(found.over).toBe(1);
  });
  it("says what is wrong and where", () => {
    expect(pastedBlock(parts, 0, "length", "10\nlong", "in").wrong).toEqual([
      expect.stringContaining("B: 'long'"),
    ]);
  });
  it("reads cells in the project's unit", () => {
    expect(pastedBlock(parts, 0, "length", "508", "mm").puts[0]!.length).toBe(20 * IN);
  });
});

it("a figure of its own takes the place of a formula", () => {
  const part = aPart({ formulas: { length: "W", width: "D" } });
  expect(without(part, "length").formulas).toEqual({ width: "D" });
  expect(part.formulas).toEqual({ length: "W", width: "D" });
});
