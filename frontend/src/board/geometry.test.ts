import { describe, expect, it } from "vitest";
import { aBoard, IN } from "../test/making";
import { edges, extent, grainSeed, thickness, underside, woodColours } from "./geometry";

describe("a board's own geometry", () => {
  const tapered = aBoard({
    stations: [
      { x: 0, y0: 0, y1: 40, t0: 10, t1: 12 },
      { x: 50, y0: 4, y1: 36, t0: 10, t1: 10 },
      { x: 100, y0: 10, y1: 30, t0: 8, t1: 6 },
    ],
    length: 100,
  });

  it("is linear between stations", () => {
    expect(edges(tapered, 0)).toEqual([0, 40]);
    expect(edges(tapered, 25)).toEqual([2, 38]);
    expect(edges(tapered, 75)).toEqual([7, 33]);
    expect(edges(tapered, 100)).toEqual([10, 30]);
    expect(thickness(tapered, 0, 0.5)).toBe(11);
    expect(thickness(tapered, 75, 1)).toBe(8);
  });

  it("spans from its lowest to its highest edge", () => {
    expect(extent(tapered)).toEqual({ low: 0, high: 40 });
  });

  it("stands off the bench as its warp says", () => {
    const bowed = aBoard({ warp: { bow: 80, cup: 0, twist: 0 } });
    expect(underside(bowed, 0, 0.5)).toBe(0);
    expect(underside(bowed, bowed.length / 2, 0.5)).toBe(80);
    expect(underside(bowed, bowed.length / 4, 0)).toBeCloseTo(60);
    const cupped = aBoard({ warp: { bow: 0, cup: -40, twist: 0 } });
    expect(underside(cupped, 0, 0.5)).toBe(-40);
    const twisted = aBoard({ warp: { bow: 0, cup: 0, twist: 30 } });
    expect(underside(twisted, twisted.length, 1)).toBe(30);
    expect([underside(twisted, 0, 1), underside(twisted, twisted.length, 0)]).toEqual([0, 0]);
  });
});

describe("how wood is shown", () => {
  it("knows the cabinet woods and tells red oak from white", () => {
    expect(woodColours("Walnut")).not.toEqual(woodColours("ash"));
    expect(woodColours("red oak")).not.toEqual(woodColours("white oak"));
    expect(woodColours("bog wood")).toEqual(woodColours("white oak"));
  });

  it("gives a board the same grain every time and another board another", () => {
    const row = (text: string) => {
      const next = grainSeed(text);
      return Array.from({ length: 20 }, next);
    };
    expect(row("O1white oak")).toEqual(row("O1white oak"));
    expect(row("O1white oak")).not.toEqual(row("O2white oak"));
    expect(row("O1").every((v) => v >= 0 && v < 1)).toBe(true);
  });
});

it("an inch is what it is in the core", () => expect(IN).toBe(8128));
