import { describe, expect, it } from "vitest";
import { nudged, whereIs } from "./moves";

const plan = {
  boards: [
    {
      board: "O1",
      segments: [
        {
          x0: 1000,
          x1: 9000,
          y0: 100,
          slope: 0.01,
          strips: [
            {
              y0: 0,
              y1: 400,
              blanks: [
                {
                  x0: 1000,
                  x1: 5000,
                  layers: [
                    [
                      { part: "A", n: 1, stave: 0 },
                      { part: "A", n: 2, stave: 0 },
                    ],
                  ],
                },
              ],
            },
          ],
        },
      ],
    },
  ],
  unplaced: [],
  closed: [],
};

describe("where a piece lies", () => {
  it("is the middle of its blank, along the line of its segment", () => {
    // Half way along 4000 ticks the line has risen by 20; the middle of the strip is 200 over it.
    expect(whereIs(plan, { part: "A", n: 2, stave: 0 })).toEqual({
      board: "O1",
      x: 3000,
      y: 320,
      x0: 1000,
      x1: 5000,
      y0: 100,
      y1: 540,
    });
    expect(whereIs(plan, { part: "B", n: 1, stave: 0 })).toBeUndefined();
  });
});

describe("a target moved by keys", () => {
  const boards = [
    { id: "O1", length: 90000 },
    { id: "O2", length: 5000 },
  ];
  const at = { board: "O1", x: 8128, y: 0 };
  it("goes an inch, or an eighth", () => {
    expect(nudged(at, "ArrowRight", false, boards)?.x).toBe(16256);
    expect(nudged(at, "ArrowLeft", true, boards)?.x).toBe(7112);
    expect(nudged({ ...at, x: 0 }, "ArrowLeft", false, boards)?.x).toBe(0);
    expect(nudged(at, "ArrowUp", false, boards)?.y).toBe(8128);
  });
  it("goes from board to board and stays on it", () => {
    expect(nudged(at, "PageDown", false, boards)).toEqual({ board: "O2", x: 5000, y: 0 });
    expect(nudged(at, "PageUp", false, boards)?.board).toBe("O2");
    expect(nudged(at, "a", false, boards)).toBeUndefined();
  });
});
