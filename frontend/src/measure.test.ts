import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { MeasureError, parse, show, type System } from "./measure";

interface Cases {
  read: [string, System, number][];
  refuse: [string, System, string][];
  print: [number, System, string][];
}
const cases = JSON.parse(
  readFileSync(new URL("../../tests/measure_cases.json", import.meta.url), "utf8"),
) as Cases;

describe("measures, by the cases the core is held to", () => {
  it.each(cases.read)("reads %s in %s", (text, system, ticks) => expect(parse(text, system)).toBe(ticks));
  it.each(cases.print)("prints %i in %s", (ticks, system, text) => expect(show(ticks, system)).toBe(text));
  it.each(cases.refuse)("refuses %s in %s", (text, system, word) => {
    expect(() => parse(text, system)).toThrow(MeasureError);
    expect(() => parse(text, system)).toThrow(word);
  });
});

describe("what is printed is read back", () => {
  const systems: System[] = ["in", "in-decimal", "ft-in", "mm", "cm", "m"];
  it.each(systems)("every 64th and every tenth of a millimetre in %s", (system) => {
    for (let n = 0; n < 64 * 130; n++) expect(parse(show(n * 127, system), system)).toBe(n * 127);
    for (let n = 0; n < 5000; n++) expect(parse(show(n * 32, system), system)).toBe(n * 32);
  });
});

it("reads a sign only where one makes sense", () => {
  expect(parse("-1/4", "in", true)).toBe(-2032);
  expect(() => parse("-1/4")).toThrow("cannot be negative");
});
