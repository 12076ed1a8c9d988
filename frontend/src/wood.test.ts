import { expect, it } from "vitest";
import { perUnit, weight, wood, woodPrice } from "./wood";

it("counts wood by the reader's units", () => {
  expect(wood(423.776, "mm")).toBe("1.000 m³");
  expect(wood(12.34, "in")).toBe("12.3 bd ft");
  expect(woodPrice(5, "mm")).toBe("2119 a m³");
});

it("prices and weighs by the reader's units", () => {
  // 10 a board foot of 0.00235974 m³.
  expect(perUnit(10, "mm")).toMatch(/4,?238/);
  expect(perUnit(10, "ft-in")).toContain("10.00");
  // 10 kg are 22.046 lb.
  expect([weight(10, "mm"), weight(10, "in"), weight(10, "in", 1)]).toEqual(["10 kg", "22 lb", "22.0 lb"]);
});
