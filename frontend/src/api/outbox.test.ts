import { beforeEach, describe, expect, it, vi } from "vitest";
import { Refused } from "./refused";
import {
  enqueue,
  isTap,
  known,
  outOfReach,
  remember,
  send,
  sent as remembered,
  tapsOf,
  unsent,
  type Tap,
  type Waiting,
} from "./outbox";

const kept = vi.hoisted(() => {
  const things = new Map<string, string>();
  const storage = {
    getItem: (k: string) => things.get(k) ?? null,
    setItem: (k: string, v: string) => void things.set(k, v),
    clear: () => things.clear(),
  };
  vi.stubGlobal("localStorage", storage);
  return storage;
});
const tap = (key: string, done = true): Tap => ({
  layout: 1,
  key,
  done,
  reading: null,
  minutes: null,
  passes: null,
  who: "",
});
const said = (piece: string): Waiting => ({
  layout: 1,
  event: { kind: "spoiled", piece, why: "split", then: "scrap", note: "" },
  who: "",
  at: "2026-03-02T09:30:00Z",
});
const named = (one: Waiting): string => (isTap(one) ? one.key : one.event.piece);
const nobody = (): void => undefined;

beforeEach(() => {
  kept.clear();
  unsent.value = [];
});

describe("taps out of reach of the server", () => {
  it("are kept in order, the last word on a step alone, and outlive the page", () => {
    enqueue(tap("a"));
    enqueue(tap("b"));
    enqueue(tap("a", false));
    expect(tapsOf(unsent.value).map((t) => [t.key, t.done])).toEqual([
      ["b", true],
      ["a", false],
    ]);
    expect(JSON.parse(kept.getItem("taps to send")!)).toEqual(unsent.value);
  });

  it("are sent in order when it answers again", async () => {
    enqueue(tap("a"));
    enqueue(tap("b"));
    const sent: string[] = [];
    expect(await send(async (t) => void sent.push(named(t)), nobody)).toBe(2);
    expect(sent).toEqual(["a", "b"]);
    expect(unsent.value).toEqual([]);
  });

  it("and what happened between them, in the order it happened", async () => {
    enqueue(tap("a"));
    enqueue(said("O1.2"));
    enqueue(said("O1.2"));
    enqueue(tap("b"));
    enqueue(tap("a", false));
    const sent: string[] = [];
    await send(async (one) => void sent.push(named(one)), nobody);
    expect(sent).toEqual(["O1.2", "O1.2", "b", "a"]);
    expect(remembered().map(named)).toEqual(["b", "a"]); // taps alone are shown from here
  });

  it("stay when it still does not answer", async () => {
    enqueue(tap("a"));
    enqueue(tap("b"));
    const count = await send(async (t) => {
      if (named(t) === "b") throw new Refused(0, "no answer");
    }, nobody);
    expect(count).toBe(1);
    expect(tapsOf(unsent.value).map((t) => t.key)).toEqual(["b"]);
  });

  it("are told and dropped when they are refused for good", async () => {
    enqueue(tap("a"));
    const told: string[] = [];
    await send(
      async () => Promise.reject(new Refused(404, "there is no such layout")),
      (t, why) => told.push(`${named(t)}: ${why}`),
    );
    expect(told).toEqual(["a: there is no such layout"]);
    expect(unsent.value).toEqual([]);
  });

  it("knows a lost network from a refusal", () => {
    expect(outOfReach(new TypeError("failed to fetch"))).toBe(true);
    expect(outOfReach(new Refused(0, "no answer"))).toBe(true);
    expect(outOfReach(new Refused(422, "expected a step"))).toBe(false);
  });
});

describe("taps the server has", () => {
  it("are remembered until an answer that was asked for after them has come", async () => {
    remember(tap("a"));
    enqueue(tap("b"));
    const before = remembered().length;
    await send(async () => undefined, nobody);
    expect(remembered().map((t) => t.key)).toEqual(["a", "b"]);
    known(before); // the answer was asked for between the two
    expect(remembered().map((t) => t.key)).toEqual(["b"]);
  });

  it("are not remembered when they are refused, and never more than two hundred", async () => {
    enqueue(tap("bad"));
    await send(async () => Promise.reject(new Refused(422, "expected a step")), nobody);
    expect(remembered()).toEqual([]);
    for (let n = 0; n < 230; n++) remember(tap(`k${n}`));
    expect([remembered().length, remembered()[0]!.key]).toEqual([200, "k30"]);
  });
});
