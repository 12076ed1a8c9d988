import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import type { Milling } from "../../api/milling";
import { aStep, drawn, words } from "../../test/making";
import DayView from "./DayView.vue";

type Days = Schemas["DaysBody"];
const steps = [
  aStep("O1/rough-length", {
    machine: "crosscut saw",
    setup: "crosscut rough",
    set_to: "rough crosscuts to the marks",
    do: "Crosscut O1",
    ready: true,
  }),
  aStep("O1.1/face", {
    machine: "jointer",
    setup: "jointer 127",
    after: ["O1/rough-length"],
    do: "Face O1.1",
  }),
  aStep("O2.1/thickness", {
    setup: "planer 6604",
    after: ["O2.1/sticker"],
    rests_until: "2026-03-12T08:00",
    do: "Plane O2.1",
  }),
];
const data = {
  layout: 3,
  stale: false,
  system: "in",
  routes: [{ board: "O1", steps }],
  cautions: {},
  where: [],
} as Milling;
const setup = (machine: string, name: string, begins: number, keys: string[]) => ({
  machine,
  setup: name,
  number: 1,
  set_to: name,
  steps: keys,
  begins,
  ends: begins + 30,
  day: Math.floor(begins / 480),
  from_clock: 480 + (begins % 480),
  to_clock: 510 + (begins % 480),
  people: 1,
});
const days: Days = {
  state: "done",
  begins: "2026-03-09",
  on_day: { "jointer 127": 1 },
  trouble: "",
  minutes: 520,
  changes: 3,
  least: 3,
  piece_by_piece: 9,
  proved: true,
  resting: [],
  day_minutes: 480,
  opens: 480,
  stale: false,
  setups: [
    setup("crosscut saw", "crosscut rough", 0, ["O1/rough-length"]),
    setup("jointer", "jointer 127", 480, ["O1.1/face"]),
    setup("planer", "planer 6604", 510, ["O2.1/thickness"]),
  ],
};
const shown = (values: Partial<Days> = {}) =>
  drawn(DayView, { data, days: { ...days, ...values }, project: 1 }).then(words);

describe("the shop's days on the screen", () => {
  it("are headed by their dates, each setting at its time with what it waits for", async () => {
    const text = await shown();
    expect(text).toContain("Monday 9 March");
    expect(text).toContain("Tuesday 10 March");
    expect(text).toContain("waits for O1 (crosscut saw)");
    expect(text).toMatch(/8:00 .*crosscut saw: ?crosscut rough/);
  });

  it("say what can be begun, what waits and what rests", async () => {
    const text = await shown();
    for (const word of ["can be begun", "waits", "rests"]) expect(text).toContain(word);
    expect(text.slice(text.lastIndexOf("Can be begun now"))).toContain("O1 Crosscut O1");
  });

  it("let go again only what is fixed to its day", async () => {
    const html = await drawn(DayView, { data, days, project: 1 });
    expect(html.match(/Let it move again/g)).toHaveLength(1);
    expect(html).toContain("Let it move again: jointer jointer 127");
    expect(html.match(/A day later/g)).toHaveLength(3);
  });

  it("tell whether a better order is ruled out, and what went wrong", async () => {
    expect(await shown()).toContain("no order of these settings is better");
    expect(await shown({ proved: false })).toContain("a better order is not ruled out");
    const damp = [{ board: "B7", percent: 13.2, equilibrium: 8.4, until: 20 }];
    const begun = async (board: string) => {
      const text = await shown({ resting: [{ ...damp[0]!, board }] });
      return text.slice(text.lastIndexOf("Can be begun now"));
    };
    expect(await begun("B7")).toContain("O1 Crosscut O1");
    expect(await begun("O1")).not.toContain("Crosscut O1");
    expect(await shown({ resting: damp })).toMatch(/B7 was read at 13\.2 %.*asks for 8\.4.*until \w+/);
    expect(await shown({ state: "failed", trouble: "planer 1 cannot be begun on day 1" })).toContain(
      "planer 1 cannot be begun on day 1",
    );
    expect(await shown({ stale: true })).toContain("plan what is left again");
  });

  it("ask for a first day where nothing is planned", async () => {
    const text = words(
      await drawn(DayView, { data, days: { ...days, state: "none", setups: [] }, project: 1 }),
    );
    expect(text).toContain("Nothing is planned yet");
    expect(text).toContain("Plan the days");
    expect(text).not.toContain("Setting sheets");
  });
});
