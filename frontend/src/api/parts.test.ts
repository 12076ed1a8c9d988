import { describe, expect, it } from "vitest";
import { aPart, IN } from "../test/making";
import type { Found, Project } from "./client";
import { nothingFromBoards, partFrom, partsFrom } from "./parts";

function found(values: Partial<Found>): Found {
  return {
    key: "Leg",
    name: "Leg",
    quantity: 4,
    length: 16 * IN,
    width: IN,
    thickness: IN,
    species: "",
    layer: "",
    mirrored: 0,
    fill: 1,
    outline: [],
    refs: ["s1"],
    note: "",
    ...values,
  };
}
const project = {
  parts: [aPart({ id: "LE" }), aPart({ id: "B", source: { drawing: 7, key: "Rail" } })],
} as Project;

describe("found things as parts", () => {
  it("get marks that nobody has, and know where they came from", () => {
    const parts = partsFrom(project, 9, [found({}), found({ key: "Leg 2", name: "Leg 2" })], "ash", 0);
    expect(parts.map((p) => p.id)).toEqual(["LE2", "L2"]);
    expect(parts[0]!.source).toEqual({ drawing: 9, key: "Leg" });
  });
  it("take wood and thickness from the drawing where it says them", () => {
    const [said, silent] = partsFrom(
      project,
      9,
      [found({ species: "oak" }), found({ key: "x", thickness: 0 })],
      "ash",
      IN / 2,
    );
    expect([said!.species, said!.thickness]).toEqual(["oak", IN]);
    expect([silent!.species, silent!.thickness]).toEqual(["ash", IN / 2]);
  });
  it("keep their outline and what is to be said of them", () => {
    const [part] = partsFrom(
      project,
      9,
      [
        found({
          outline: [
            [0, 0],
            [5, 0],
            [0, 5],
          ],
          note: "make as pairs",
        }),
      ],
      "ash",
      0,
    );
    expect([part!.outline.length, part!.note]).toEqual([3, "make as pairs"]);
  });
});

it("a part is found again by its drawing and key", () => {
  expect(partFrom(project, 7, "Rail")!.id).toBe("B");
  expect(partFrom(project, 8, "Rail")).toBeUndefined();
});

it("a list of bought and sheet parts has nothing from boards, an empty one is only empty", () => {
  const [bought, sheet, board] = (["bought", "sheet", "board"] as const).map((stock) =>
    aPart({ id: stock, stock }),
  );
  expect([
    nothingFromBoards([bought!, sheet!]),
    nothingFromBoards([bought!, board!]),
    nothingFromBoards([]),
  ]).toEqual([true, false, false]);
});
