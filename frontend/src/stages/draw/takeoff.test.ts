import { describe, expect, it } from "vitest";
import type { View } from "../../api/client";
import { IN } from "../../test/making";
import { corners, mismatch, perUnit, sides, snapped, type Scale } from "./takeoff";

const view: View = {
  name: "page",
  width: 200,
  height: 100,
  shapes: [],
  words: [],
  lines: [
    [
      [10, 10],
      [110, 10],
      [110, 40],
    ],
  ],
};
const scale: Scale = { id: "s1", page: 0, name: "front", a: [10, 10], b: [110, 10], distance: 40 * IN };

describe("a scale", () => {
  it("is ticks to the unit of the sheet, in any direction", () => {
    expect(perUnit(scale)).toBeCloseTo(0.4 * IN);
    expect(perUnit({ ...scale, b: [70, 90] })).toBeCloseTo(0.4 * IN);
    expect(perUnit({ ...scale, b: [10, 10] })).toBe(0);
  });
  it("gives both sides of a mark, the longer first, however it was drawn", () => {
    expect(sides({ a: [10, 10], b: [60, 110] }, scale).map((t) => Math.round(t / IN))).toEqual([40, 20]);
    expect(sides({ a: [60, 110], b: [10, 10] }, scale)).toEqual(sides({ a: [10, 10], b: [60, 110] }, scale));
  });
  it("is read to what a picture can be measured to", () => {
    const [length] = sides({ a: [10, 10], b: [60.013, 110] }, scale, 127);
    expect(length % 127).toBe(0);
  });
  it("is doubted where it differs by more than 1 % from what is written", () => {
    expect(mismatch(40 * IN, 40.3 * IN)).toBe(false);
    expect(mismatch(40 * IN, 41 * IN)).toBe(true);
    expect(mismatch(0, 41 * IN)).toBe(false);
  });
});

describe("snapping", () => {
  const points = corners(view, [{ a: [150, 50], b: [180, 80] }]);
  it("goes to corners of lines and marks first", () => {
    expect(snapped([108, 12], view, points, 5)).toEqual([110, 10]);
    expect(snapped([152, 79], view, points, 5)).toEqual([150, 80]);
  });
  it("else onto a line, else nowhere", () => {
    expect(snapped([60, 13], view, points, 5)).toEqual([60, 10]);
    expect(snapped([60, 60], view, points, 5)).toEqual([60, 60]);
  });
});
