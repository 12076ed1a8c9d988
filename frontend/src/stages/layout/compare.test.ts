import { expect, it } from "vitest";
import type { Plan } from "../../board/geometry";
import { differences } from "./compare";

const lying = (board: string, ...names: [string, number, number][]): Plan["boards"][number] => ({
  board,
  segments: [
    {
      x0: 0,
      x1: 99,
      y0: 0,
      slope: 0,
      strips: [
        {
          y0: 0,
          y1: 10,
          blanks: names.map(([part, n, x0]) => ({ x0, x1: x0 + 10, layers: [[{ part, n, stave: 0 }]] })),
        },
      ],
    },
  ],
});

it("names what lies on another board, and every board on which anything differs", () => {
  const one: Plan = {
    boards: [lying("O1", ["A", 1, 0], ["A", 2, 20]), lying("O2", ["B", 1, 0])],
    unplaced: [],
    closed: [],
  };
  const other: Plan = {
    boards: [lying("O1", ["A", 1, 0]), lying("O3", ["A", 2, 0]), lying("O2", ["B", 1, 5])],
    unplaced: [],
    closed: [],
  };
  expect(differences(one, other)).toEqual({
    moved: [{ item: "A2", from: "O1", to: "O3" }],
    boards: ["O1", "O2", "O3"],
  });
  expect(differences(one, { boards: [], unplaced: [], closed: [] }).moved).toHaveLength(3);
  expect(differences(one, one)).toEqual({ moved: [], boards: [] });
});
