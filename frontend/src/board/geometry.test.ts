import { describe, expect, it } from "vitest";
import { aBoard, IN } from "../test/making";
import { plainStation } from "./make";
import { crossesItself, edges, extent, grainSeed, thickness, underside, woodColours } from "./geometry";

describe("a board's own geometry", () => {
  const tapered = aBoard({
    stations: [
      plainStation(0, 0, 40, 10, 12),
      plainStation(50, 4, 36, 10, 10),
      plainStation(100, 10, 30, 8, 6),
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

describe("an outline", () => {
  const p = (x: number, y: number) => ({ x, y });
  it("crosses itself or does not", () => {
    expect(crossesItself([p(0, 0), p(4, 0), p(4, 4), p(0, 4)])).toBe(false);
    expect(crossesItself([p(0, 0), p(4, 4), p(4, 0), p(0, 4)])).toBe(true);
    expect(crossesItself([p(0, 0), p(4, 0), p(2, 3)])).toBe(false);
    expect(crossesItself([p(0, 0), p(6, 0), p(6, 4), p(3, 0), p(0, 4)])).toBe(true); // touches
  });
});

describe("a board scanned or read across", () => {
  it("is as high as its heights say, bilinear in between", () => {
    const surface = {
      xs: [0, 100],
      ys: [0, 40],
      lower: [
        [0, 0],
        [8, 16],
      ],
      upper: [
        [100, 100],
        [108, 116],
      ],
    };
    const board = aBoard({
      length: 100,
      stations: [plainStation(0, 0, 40, 1), plainStation(100, 0, 40, 1)],
      surface,
    });
    expect([underside(board, 100, 1), underside(board, 50, 0.5), thickness(board, 50, 0.5)]).toEqual([
      16, 6, 100,
    ]);
  });
  it("has its readings evenly across", () => {
    const stations = [plainStation(0, 0, 40, 10), plainStation(100, 0, 40, 10)].map((s) => ({
      ...s,
      between: [6],
    }));
    const board = aBoard({ length: 100, stations });
    expect([thickness(board, 20, 0), thickness(board, 20, 0.25), thickness(board, 20, 0.5)]).toEqual([
      10, 8, 6,
    ]);
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
