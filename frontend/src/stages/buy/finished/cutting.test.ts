import { expect, it } from "vitest";
import { cutting } from "./cutting";

it("tells lengths that are cut alike once, and a part once in each", () => {
  const four = ["S", "S", "S", "S"];
  expect(cutting([["L", "S"], four, ["L", "S"], ["B", "S", "S"]])).toBe(
    "2 × (L + S), 1 × (4 S), 1 × (B + 2 S)",
  );
});
