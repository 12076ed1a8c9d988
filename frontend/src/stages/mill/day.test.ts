import { describe, expect, it } from "vitest";
import { aStep } from "../../test/making";
import { byDay, clock, dayName, lasting, setupState, waitsFor, type Setup } from "./day";

function setup(machine: string, begins: number, ends: number, steps: string[] = []): Setup {
  return {
    machine,
    setup: `${machine} 1`,
    number: 1,
    set_to: "",
    steps,
    begins,
    ends,
    day: Math.floor(begins / 480),
    from_clock: 0,
    to_clock: 0,
    people: 1,
  };
}

describe("the shop's days", () => {
  it("says times and dates as a shop does", () => {
    expect([clock(480), clock(845), clock(5)]).toEqual(["8:00", "14:05", "0:05"]);
    expect([lasting(12.4), lasting(59.6), lasting(125)]).toEqual(["12 min", "1 h 00", "2 h 05"]);
    expect(dayName("2026-03-09", 0)).toBe("Monday 9 March");
    expect(dayName("2026-02-27", 3)).toBe("Monday 2 March");
  });

  it("puts settings on their days and what runs over night on both", () => {
    const days = byDay([setup("planer", 0, 120), setup("jointer", 400, 560), setup("planer", 600, 620)], 480);
    expect(days.map((d) => [d.day, d.setups.length])).toEqual([
      [0, 2],
      [1, 1],
    ]);
    const late = days[0]!.machines.find((m) => m.machine === "jointer")!.bars[0]!;
    expect([late.from, late.to]).toEqual([400 / 480, 1]);
    const early = days[1]!.machines.find((m) => m.machine === "jointer")!.bars[0]!;
    expect([early.from, early.to]).toEqual([0, 80 / 480]);
    expect(days[1]!.machines.map((m) => m.machine)).toEqual(["jointer", "planer"]);
  });

  it("tells how far a setting is and what it waits for", () => {
    const steps = new Map([
      ["a", aStep("a", { ready: true })],
      ["b", aStep("b", { after: ["a"] })],
      ["c", aStep("c", { after: ["a", "b"], rests_until: "2026-03-09T10:00" })],
      ["d", aStep("d", { done: true })],
    ]);
    expect(setupState(setup("planer", 0, 1, ["a", "b"]), steps)).toBe("ready");
    expect(setupState(setup("planer", 0, 1, ["b"]), steps)).toBe("waits");
    expect(setupState(setup("planer", 0, 1, ["b", "c"]), steps)).toBe("rests");
    expect(setupState(setup("planer", 0, 1, ["d"]), steps)).toBe("done");
    expect(waitsFor(setup("planer", 0, 1, ["b", "c"]), steps).map((s) => s.key)).toEqual(["a"]);
    expect(waitsFor(setup("planer", 0, 1, ["c"]), steps).map((s) => s.key)).toEqual(["a", "b"]);
  });
});
