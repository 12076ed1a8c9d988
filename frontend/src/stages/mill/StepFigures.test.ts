import { describe, expect, it } from "vitest";
import { aStep, drawn, IN, words } from "../../test/making";
import StepFigures from "./StepFigures.vue";

const step = (values = {}) =>
  aStep("B1.1/thickness", {
    setting: (3 / 4) * IN,
    passes: [508, 508, 127],
    stock_in: IN,
    stock_out: (3 / 4) * IN,
    ...values,
  });
const figures = (values = {}, system = "in") =>
  drawn(StepFigures, { step: step(values), system }).then(words);

describe("the figures of a step", () => {
  it("have the setting, the passes with their depths, and the thickness before and after", async () => {
    expect(await figures()).toBe(
      "3/4 in setting 3 passes of 1/16, 1/16, 1/64 1 → 3/4 in thickness, before and after",
    );
  });

  it("name equal passes once", async () => {
    expect(await figures({ passes: [254, 254] })).toContain("2 passes of 1/32 in");
    expect(await figures({ passes: [254] })).toContain("1 pass of 1/32 in");
  });

  it("call the setting by what it is at each machine", async () => {
    expect(await figures({ machine: "jointer", dimension: "straight" })).toContain("depth of cut");
    expect(await figures({ machine: "table saw", dimension: "width" })).toContain("fence");
    expect(await figures({ machine: "crosscut saw", dimension: "length" })).toContain(
      "from the datum end or stop",
    );
  });

  it("leave out what there is none of", async () => {
    expect(await figures({ passes: [], setting: 0, dimension: "width" })).toBe("");
  });

  it("are metric in a metric project", async () => {
    expect(await figures({ setting: 20 * 320 }, "mm")).toContain("20 mm setting");
  });
});
