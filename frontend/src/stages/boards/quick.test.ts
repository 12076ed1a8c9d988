import { describe, expect, it } from "vitest";
import { IN } from "../../test/making";
import { EMPTY, faultAt, nothingYet, nudged, padTicks, pressed, toBoard, type Quick } from "./quick";

const known: Quick = {
  ...nothingYet("ash"),
  length: 96 * IN,
  near: 7 * IN,
  middle: 6.5 * IN,
  far: 6 * IN,
  thickest: 1.0625 * IN,
  thinnest: IN,
  bow: IN / 8,
  twist: 0,
  cup: 0,
};
const type = (keys: string[], system: "in" | "mm" = "in") => padTicks(keys.reduce(pressed, EMPTY), system);

describe("the number pad", () => {
  it("adds up fractions: a half and an eighth are five eighths", () =>
    expect(type(["7", "/8", "/2"])).toBe(7.625 * IN));
  it("takes a fraction back before a figure", () => {
    expect(type(["1", "2", "/4", "back"])).toBe(12 * IN);
    expect(type(["1", "2", "/4", "back", "back"])).toBe(IN);
  });
  it("says nothing while nothing is pressed", () => expect(type([])).toBeNull());
  it("takes millimetres with one point", () =>
    expect(type(["2", "6", ".", ".", "5"], "mm")).toBe(26.5 * 320));
  it("takes a bare fraction", () => expect(type(["/1"])).toBe(IN / 16));
});

describe("a board in the yard", () => {
  it("needs no caution where all was measured", () => {
    const { board, cautions } = toBoard(known, "B1", "in");
    expect(cautions).toEqual([]);
    expect(board.stations.map((s) => s.y1 / IN)).toEqual([7, 6.5, 6]);
    expect(board.warp).toEqual({ bow: IN / 8, twist: 0, cup: 0 });
  });
  it("is thin at its ends over a hollow, the worst of what is known", () => {
    const { board } = toBoard(known, "B1", "in");
    expect(board.stations.map((s) => s.t0 / IN)).toEqual([1, 1.0625, 1]);
  });
  it("says of everything unknown how it was taken", () => {
    const { board, cautions } = toBoard({ ...nothingYet("ash"), length: 48 * IN, near: 6 * IN }, "B1", "in");
    expect(cautions).toEqual([
      "thickness not measured: taken as 15/16 in to 1 in",
      "bow not measured: taken as 1/16 in",
      "twist not measured: taken as 1/16 in",
      "cup not measured: taken as 1/16 in",
    ]);
    expect(board.note).toBe(cautions.join("; "));
    expect(board.stations.map((s) => s.y1)).toEqual([6 * IN, 6 * IN, 6 * IN]);
  });
  it("a bow that was not measured is taken by the square of the length", () => {
    const bow = (length: number) =>
      toBoard({ ...known, length: length * IN, bow: null }, "B", "in").board.warp.bow;
    expect(bow(96) / bow(48)).toBeCloseTo(4);
  });
});

describe("faults tapped", () => {
  it("are of a usual size for their kind, and inside the board", () => {
    expect(faultAt("tight-knot", { x: 10 * IN, y: 3 * IN }, 60 * IN, "A")).toMatchObject({
      x0: 9.375 * IN,
      x1: 10.625 * IN,
    });
    expect(faultAt("check", { x: 0, y: IN }, 60 * IN, "both")).toMatchObject({
      x0: 0,
      x1: 6 * IN,
      face: "both",
    });
  });
  it("are moved and made larger by buttons, never to nothing", () => {
    const knot = faultAt("tight-knot", { x: 10 * IN, y: 3 * IN }, 60 * IN, "A");
    expect(nudged(knot, "right").x0 - knot.x0).toBe(IN / 4);
    expect(nudged(knot, "larger").x1 - nudged(knot, "larger").x0).toBe(1.5 * IN);
    let small = knot;
    for (let k = 0; k < 20; k++) small = nudged(small, "smaller");
    expect(small.x1 - small.x0).toBeGreaterThanOrEqual(IN / 4);
  });
});
