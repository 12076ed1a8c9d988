import { describe, expect, it } from "vitest";
import { nameOf, restsOn, told, type Learned } from "./learnedFigures";

const one = (values: Partial<Learned>): Learned => ({
  key: "minutes:planer",
  kind: "minutes",
  of: "planer",
  usual: 1,
  value: 1.234,
  low: 1.1,
  high: 1.4,
  events: 12,
  projects: 2,
  used: true,
  ...values,
});

describe("a learned figure", () => {
  it("is told with its interval and what it rests on", () => {
    expect(told(one({}), "in")).toEqual({ usual: "1.00", value: "1.23", between: "1.10 to 1.40" });
    expect(restsOn(one({}))).toBe("12 steps in 2 projects");
    expect(restsOn(one({ events: 1, projects: 1 }))).toBe("1 step in 1 project");
  });
  it("tells faults as one in so many board feet, the more frequent first", () => {
    const faults = one({ kind: "faults", of: "ash", usual: 0.0125, value: 0.02, low: 0.01, high: 0.04 });
    expect(told(faults, "in")).toEqual({
      usual: "one in 80 bd ft",
      value: "one in 50 bd ft",
      between: "25 to 100",
    });
    expect(restsOn(one({ kind: "wood", events: 1, projects: 1 }))).toBe("1 project");
  });
  it("tells an allowance as a length, by the size it is for", () => {
    const face = one({
      kind: "allowance",
      of: "face",
      usual: 254,
      value: 381,
      low: 254,
      high: 508,
      events: 3,
    });
    expect(told(face, "in")).toEqual({ usual: "1/32 in", value: "3/64 in", between: "1/32 in to 1/16 in" });
    expect(nameOf(face)).toBe("in thickness");
    expect(restsOn(face)).toBe("3 pieces in 2 projects");
  });
});
