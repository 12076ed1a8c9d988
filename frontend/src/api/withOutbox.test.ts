import { expect, it } from "vitest";
import type { Schemas } from "./client";
import { withOutbox } from "./withOutbox";

const step = (key: string, after: string[] = []) => ({
  key,
  after,
  done: false,
  ready: after.length === 0,
  hold: 0,
  rests_until: "",
});
const milling = {
  layout: 4,
  routes: [
    { board: "O1", steps: [step("a"), step("b", ["a"])] },
    { board: "O2", steps: [step("c", ["b"])] },
  ],
} as unknown as Schemas["MillingBody"];
const nothing = { reading: null, minutes: null, passes: null, who: "" };
const tap = (key: string, done = true, layout = 4) => ({ layout, key, done, ...nothing });
const standing = (m: Schemas["MillingBody"]) =>
  m.routes.flatMap((r) => r.steps).map((s) => `${s.key}${s.done ? " done" : s.ready ? " ready" : ""}`);

it("shows what was tapped as done, and what it lets begin as ready, on every board", () => {
  expect(standing(withOutbox(milling, [tap("a"), tap("b")]))).toEqual(["a done", "b done", "c ready"]);
});
it("takes a tick back where the last tap did, and leaves another plan's taps alone", () => {
  expect(standing(withOutbox(milling, [tap("a"), tap("a", false)]))).toEqual(["a ready", "b", "c"]);
  expect(standing(withOutbox(milling, [tap("a", true, 9)]))).toEqual(["a ready", "b", "c"]);
});
it("changes nothing that it was given", () => {
  withOutbox(milling, [tap("a")]);
  expect(standing(milling)).toEqual(["a ready", "b", "c"]);
});
