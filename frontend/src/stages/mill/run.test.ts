import { describe, expect, it } from "vitest";
import { aStep } from "../../test/making";
import {
  asksReading,
  begin,
  cleanAlready,
  endsByEye,
  foretold,
  inOrder,
  judged,
  marked,
  nextReady,
  oneMore,
  passesOf,
  phase,
  sameSetting,
  spareLeft,
  tapped,
  untapped,
  type Verdict,
} from "./run";

const IN = 8128;
const plane = aStep("O1.1/thickness", {
  machine: "planer",
  dimension: "thickness",
  stock_in: IN,
  stock_out: (IN * 60) / 64,
  passes: [254, 127, 127],
  turns: ["half a turn", "a quarter turn", "a quarter turn"],
});
const verdict = (state: Verdict["state"], more: Partial<Verdict> = {}): Verdict => ({
  state,
  says: "",
  passes: [],
  turns: [],
  ways: [],
  ...more,
});

describe("a step at the machine", () => {
  it("counts its passes down, then asks for the reading", () => {
    let run = begin(plane, 0);
    const phases = [phase(plane, run)];
    for (let n = 0; n < 3; n++) phases.push(phase(plane, (run = tapped(run))));
    expect(phases).toEqual(["pass", "pass", "pass", "read"]);
  });

  it("foretells the reading after every pass", () => {
    let run = begin(plane, 0);
    const seen = [foretold(plane, run)];
    for (let n = 0; n < 3; n++) seen.push(foretold(plane, (run = tapped(run))));
    expect(seen).toEqual([8128, 7874, 7747, 7620]);
  });

  it("takes what a reading asks for, then reads again", () => {
    const run = judged(
      { ...begin(plane, 0), taken: 3 },
      7874,
      verdict("go on", { passes: [254], turns: ["half a turn"] }),
    );
    expect(phase(plane, run)).toBe("pass");
    expect(passesOf(plane, run).turns).toEqual(["half a turn"]);
    expect(foretold(plane, tapped(run))).toBe(7620);
    expect(phase(plane, tapped(run))).toBe("read");
  });

  it("is done by a reading that fits and stops at one that does not", () => {
    const read = { ...begin(plane, 0), taken: 3 };
    expect(phase(plane, judged(read, 7620, verdict("done")))).toBe("done");
    const stopped = judged(read, 7000, verdict("stop", { ways: ["write it off"] }));
    expect(phase(plane, stopped)).toBe("stop");
    expect(phase(plane, { ...stopped, verdict: null })).toBe("read");
  });

  it("goes back by one tap, and no further than none", () => {
    const twice = tapped(tapped(begin(plane, 0)));
    expect(untapped(twice)).toEqual(tapped(begin(plane, 0)));
    expect(untapped(untapped(untapped(twice)))).toEqual(begin(plane, 0));
  });

  it("ends where the eye says so, before the passes foretold or after them", () => {
    const face = aStep("O1.1/face", {
      machine: "jointer",
      dimension: "straight",
      passes: [127, 127, 127],
      turns: [],
    });
    expect([endsByEye(face), endsByEye(plane), endsByEye({ ...face, passes: [] })]).toEqual([
      true,
      false,
      false,
    ]);
    const early = cleanAlready(face, tapped(begin(face, 0)));
    expect([phase(face, early), early.all]).toEqual(["done", 1]);
    let late = tapped(tapped(oneMore(face, tapped(begin(face, 0)))));
    expect(phase(face, late)).toBe("pass");
    late = tapped(late);
    expect([phase(face, late), late.all]).toEqual(["done", 4]);
    expect(passesOf(face, late).passes).toEqual([127, 127, 127, 127]);
  });

  it("tells what passes beyond those foretold leave to spare, and that a piece comes out too thin", () => {
    const face = aStep("O1.1/face", {
      does: "flatten",
      machine: "jointer",
      dimension: "straight",
      passes: [127, 127],
      turns: [],
      spare: 200,
    });
    const as = begin(face, 0);
    expect(spareLeft(face, as)).toBeNull();
    expect(spareLeft(face, oneMore(face, as))).toBe(73);
    expect(spareLeft(face, oneMore(face, oneMore(face, as)))).toBe(-54);
    expect(spareLeft({ ...face, does: "joint-edge" }, oneMore(face, as))).toBeNull();
    // Two are taken, a reading asks for one more: that is one beyond those foretold.
    const read = judged(tapped(tapped(as)), 0, verdict("go on", { passes: [127], turns: [""] }));
    expect(spareLeft(face, read)).toBe(73);
  });

  it("counts the passes before a reading and after it together", () => {
    const read = judged(tapped(tapped(tapped(begin(plane, 0)))), 7874, verdict("go on", { passes: [254] }));
    expect(tapped(read)).toMatchObject({ taken: 1, all: 4 });
  });

  it("asks for no reading at a saw or the jointer, and for the measure of a fitted piece", () => {
    expect(asksReading(aStep("a/face", { machine: "jointer", dimension: "straight" }))).toBe(false);
    expect(asksReading(aStep("a/width", { machine: "table saw", dimension: "width" }))).toBe(false);
    expect(asksReading(aStep("a/fit-AR", { machine: "crosscut saw", dimension: "length" }))).toBe(true);
    expect(asksReading(aStep("a/resaw", { machine: "bandsaw", dimension: "thickness" }))).toBe(false);
    const saw = aStep("a/width", { machine: "table saw", passes: [] });
    expect(phase(saw, begin(saw, 0))).toBe("done");
  });
});

describe("the order at the machine", () => {
  const steps = [
    aStep("a/face", { ready: true }),
    aStep("a/thickness", { after: ["a/face"] }),
    aStep("b/face", { ready: true }),
    aStep("b/thickness", { after: ["b/face"] }),
  ];

  it("is that of the days, done steps first and unplanned ones last", () => {
    const planned = inOrder(steps, [{ steps: ["b/face", "a/face"] }, { steps: ["b/thickness"] }]);
    expect(planned.map((s) => s.key)).toEqual(["b/face", "a/face", "b/thickness", "a/thickness"]);
    expect(inOrder(steps, []).map((s) => s.key)).toEqual(steps.map((s) => s.key));
    const begun = inOrder([{ ...steps[3]!, done: true }, steps[0]!], [{ steps: ["a/face"] }]);
    expect(begun[0]!.key).toBe("b/thickness");
  });

  it("goes on to what is ready, from where one is and round", () => {
    expect(nextReady(steps, 1)).toBe(2);
    expect(nextReady(steps, 3)).toBe(0);
    expect(
      nextReady(
        steps.map((s) => ({ ...s, ready: false })),
        0,
      ),
    ).toBe(-1);
  });

  it("knows what follows at the same setting", () => {
    const set = steps.map((s, n) => ({
      ...s,
      setup: n % 2 ? "planer 6604" : "jointer 254",
      machine: n % 2 ? "planer" : "jointer",
    }));
    expect(sameSetting(set, 0).map((s) => s.key)).toEqual(["b/face"]);
    expect(
      sameSetting(
        set.map((s) => ({ ...s, done: s.key === "b/face" })),
        0,
      ),
    ).toEqual([]);
    expect(sameSetting(set, 9)).toEqual([]);
  });
});

describe("a tick seen at once", () => {
  it("makes ready what waited for it, and not what rests after it", () => {
    const steps = [aStep("a/face", { ready: true }), aStep("a/thickness", { after: ["a/face"] })];
    expect(marked(steps, "a/face", true).map((s) => s.ready)).toEqual([false, true]);
    expect(marked(marked(steps, "a/face", true), "a/face", false).map((s) => s.ready)).toEqual([true, false]);
    const resting = [
      aStep("a/sticker", { ready: true, hold: 1440 }),
      aStep("a/thickness", { after: ["a/sticker"] }),
    ];
    expect(marked(resting, "a/sticker", true).map((s) => s.ready)).toEqual([false, false]);
  });
});
