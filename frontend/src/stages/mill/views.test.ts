import { describe, expect, it } from "vitest";
import { aStep, drawn, words } from "../../test/making";
import WaysNote from "./WaysNote.vue";
import WhereView from "./WhereView.vue";

describe("a way round", () => {
  const step = aStep("O1.1/face", {
    obstacle: "10 in wide; the jointer takes 8 in",
    ways: [
      {
        machine: "planer",
        method: "carrier",
        guard_off: false,
        do: "on a flat carrier",
        costs: "10 minutes to shim it",
        danger: "it must not rock",
      },
      {
        machine: "hand plane",
        method: "hand",
        guard_off: false,
        do: "hand planes and winding sticks",
        costs: "about 33 minutes",
        danger: "",
      },
    ],
  });

  it("says why, what is done here, its cost and its danger, and what else could be", async () => {
    const text = words(await drawn(WaysNote, { step }));
    expect(text.replaceAll(" .", ".")).toContain(
      "10 in wide; the jointer takes 8 in. Here: on a flat carrier (10 minutes to shim it). Mind: it must not rock.",
    );
    expect(text).toContain("Or hand planes and winding sticks (about 33 minutes) Do it so");
  });

  it("offers nothing else where there is one way only", async () => {
    const text = words(await drawn(WaysNote, { step: { ...step, ways: step.ways.slice(1) } }));
    expect(text).toContain("Here: hand planes and winding sticks (about 33 minutes).");
    expect(text).not.toContain("Or");
  });
});

describe("whereabouts", () => {
  it("lists every piece with its place in words, and counts them", async () => {
    const where = [
      { mark: "BR1", name: "Back rail", board: "O1", piece: "O1.2b", place: "milled" },
      { mark: "SL1", name: "Slat", board: "O2", piece: "O2.1a", place: "rack" },
      { mark: "SL2", name: "Slat", board: "O2", piece: "O2.1b", place: "rack" },
    ];
    const text = words(await drawn(WhereView, { where }));
    expect(text).toContain("2 in the rack 1 milled");
    expect(text).toContain("BR1 Back rail milled O1.2b O1");
    expect(text).not.toContain("No piece");
    expect(words(await drawn(WhereView, { where: [] }))).toContain("No piece of this plan is called so.");
  });
});
