import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Layout } from "../../api/client";

const asked = vi.hoisted(() => [] as { body: { x: number }; answer: (holds: boolean) => void }[]);
vi.mock("../../api/client", () => ({
  api: {
    POST: (_: string, ask: { body: { x: number } }) =>
      new Promise((done) =>
        asked.push({
          body: ask.body,
          answer: (holds) => done({ data: { holds, why: holds ? "" : "a knot" } }),
        }),
      ),
  },
}));
const { useHand } = await import("./hand");

const layout = { pk: 7 } as Layout;
const rail = { part: "BR", n: 1, stave: 0 };
const at = (x: number) => ({ board: "O3", x, y: 0 });
const settle = () => new Promise((done) => setTimeout(done, 0));

beforeEach(() => void asked.splice(0));

describe("what is in hand", () => {
  it("is tried where it is aimed at, and the answer is told", async () => {
    const hand = useHand(() => layout);
    hand.takeInHand(rail);
    hand.aim(at(100));
    expect(asked.length).toBe(1);
    expect(hand.refused()).toBe(false); // not known yet
    asked[0]!.answer(false);
    await settle();
    expect(hand.tried.value?.why).toBe("a knot");
    expect(hand.refused()).toBe(true);
    expect(hand.move.value).toMatchObject({ kind: "lay-down", item: rail, board: "O3", x: 100 });
  });

  it("asks one question at a time, and after it the newest alone", async () => {
    const hand = useHand(() => layout);
    hand.takeInHand(rail);
    for (const x of [1, 2, 3]) hand.aim(at(x));
    expect(asked.map((a) => a.body.x)).toEqual([1]);
    asked[0]!.answer(false);
    await settle();
    expect(asked.map((a) => a.body.x)).toEqual([1, 3]);
    asked[1]!.answer(true);
    await settle();
    expect(hand.tried.value?.holds).toBe(true);
    expect(hand.refused()).toBe(false);
  });

  it("forgets an answer that comes for a piece no longer in hand", async () => {
    const hand = useHand(() => layout);
    hand.takeInHand(rail);
    hand.aim(at(1));
    hand.letGo();
    asked[0]!.answer(true);
    await settle();
    expect(hand.tried.value).toBeNull();
    expect(hand.move.value).toBeNull();
    hand.takeInHand({ part: "SL", n: 2, stave: 0 });
    expect(hand.tried.value).toBeNull();
  });

  it("asks nothing with empty hands or where no plan stands", () => {
    const empty = useHand(() => layout);
    empty.aim(at(1));
    const nowhere = useHand(() => null);
    nowhere.takeInHand(rail);
    nowhere.aim(at(1));
    expect(asked).toEqual([]);
  });
});
