// @vitest-environment happy-dom
import { beforeEach, expect, it, vi } from "vitest";
import type { OfferPut, Words } from "../../../api/buying";
import { plainBoard, plainStation } from "../../../board/make";
import { TICKS_PER_INCH as IN } from "../../../measure";
import { firstWord, forget, hold, meanWidth, sendWaiting, ticketFeet, waiting, worthOf } from "./aisle";

const FOOT = 12 * IN;
const words: Words = {
  key: "ash 4/4",
  species: "ash",
  quarter: "4/4",
  per_foot: 4,
  lengths: [3 * FOOT, 6 * FOOT, 12 * FOOT],
  widths: [3 * IN, 6 * IN, 10 * IN],
  worths: {
    none: [
      [2, 6, 8],
      [6, 20, 30],
      [12, 40, 60],
    ],
    check: [
      [0, 2, 4],
      [4, 12, 20],
      [10, 30, 50],
    ],
    twist: [
      [0, 0, 0],
      [0, 5, 6],
      [0, 9, 12],
    ],
  },
};

it("says what a plain board is worth between the sizes that were worked out", () => {
  expect(worthOf(words, 6 * FOOT, 6 * IN, "none")).toBe(20);
  expect(worthOf(words, 9 * FOOT, 6 * IN, "none")).toBe(30);
  expect(worthOf(words, 9 * FOOT, 8 * IN, "none")).toBe(37.5); // between 20, 30 and 40, 60
  expect(worthOf(words, 20 * FOOT, 20 * IN, "none")).toBe(60);
  expect(worthOf(words, 1.5 * FOOT, 3 * IN, "none")).toBe(1);
});

it("gives a first word beside the price", () => {
  const word = (price: number, trouble: "none" | "check" | "twist" = "none") =>
    firstWord(words, 6 * FOOT, 6 * IN, trouble, price).word;
  expect([word(12), word(19), word(30)]).toEqual(["take", "even", "leave"]);
  expect(word(12, "twist")).toBe("leave");
  expect(firstWord(words, 6 * FOOT, 3 * IN, "twist", 12).word).toBe("not-wanted");
});

it("counts board feet by the ticket's rule", () => {
  const rule = { method: "exact", whole_feet: false, half_inches_up: false } as const;
  // 8/4, 6 1/2 in, 9 ft 4 in: 2 × 6.5 × 9 1/3 / 12 = 10 1/9; by surface and whole feet 2 × 5.
  expect(ticketFeet(rule, "8/4", 6.5 * IN, 112 * IN)).toBeCloseTo(91 / 9);
  expect(ticketFeet({ ...rule, method: "surface", whole_feet: true }, "8/4", 6.5 * IN, 112 * IN)).toBe(10);
  expect(ticketFeet({ ...rule, half_inches_up: true }, "8/4", 6.6 * IN, 112 * IN)).toBeCloseTo(98 / 9);
  expect(ticketFeet({ ...rule, half_inches_up: true }, "4/4", 6.5 * IN, FOOT)).toBeCloseTo(6.5 / 12);
});

it("takes the mean width of a tapered board", () => {
  const board = plainBoard({
    id: "Y",
    species: "ash",
    length: 60 * IN,
    stations: [plainStation(0, 0, 8 * IN, IN), plainStation(60 * IN, IN, 7 * IN, IN)],
  });
  expect(meanWidth(board)).toBe(7 * IN);
});

const record = (mark: string, price = 4) => ({
  project: 1,
  offer: { board: { id: mark }, supplier: "here", per_foot: price } as unknown as OfferPut,
});

beforeEach(() => {
  localStorage.clear();
  waiting.value = [];
});

it("keeps what was looked at until the server has it, the last word on each board", async () => {
  hold(record("Y1"));
  hold(record("Y2"));
  hold(record("Y1", 5));
  expect(waiting.value.map((w) => [w.offer.board.id, w.offer.per_foot])).toEqual([
    ["Y2", 4],
    ["Y1", 5],
  ]);
  expect(JSON.parse(localStorage.getItem("boards looked at")!)).toHaveLength(2);
  const away = new TypeError("out of reach");
  const put = vi.fn().mockResolvedValueOnce({}).mockRejectedValueOnce(away);
  const reach = (problem: unknown) => problem === away;
  expect(await sendWaiting(put, reach)).toBe(1);
  expect(waiting.value.map((w) => w.offer.board.id)).toEqual(["Y1"]);
  // What the server refuses stays, with the reason, and stands in nobody's way.
  await sendWaiting(vi.fn().mockRejectedValue(new Error("no such wood")), reach);
  hold(record("Y3"));
  expect(await sendWaiting(vi.fn().mockResolvedValue({}), reach)).toBe(1);
  expect(waiting.value.map((w) => [w.offer.board.id, w.why])).toEqual([["Y1", "no such wood"]]);
  hold(record("Y1", 6)); // put right
  expect(await sendWaiting(vi.fn().mockResolvedValue({}), reach)).toBe(1);
  hold(record("Y4"));
  forget(record("Y4"));
  expect(waiting.value).toEqual([]);
});
