import { describe, expect, it } from "vitest";
import { drawn, IN } from "../test/making";
import MeasureField from "./MeasureField.vue";

const field = (props = {}) =>
  drawn(MeasureField, { modelValue: 2.5 * IN, system: "in", label: "Width", ...props });

describe("the measure field", () => {
  it.each([
    ["in", "2 1/2"],
    ["in-decimal", "2.5"],
    ["mm", "63.5"],
    ["cm", "6.35"],
    ["m", "0.0635"],
  ])("shows the project's own notation in %s", async (system, text) => {
    expect(await field({ system })).toContain(`value="${text}"`);
  });

  it("is empty where nothing is known yet", async () => {
    expect(await field({ modelValue: null })).toContain('value=""');
  });

  it("has a label tied to it, seen or not", async () => {
    for (const hideLabel of [false, true]) {
      const html = await field({ hideLabel });
      const id = /<label for="([^"]+)"/.exec(html)![1];
      expect(html).toContain(`id="${id}"`);
      expect(html).toContain(`aria-describedby="${id}-told"`);
      expect(html.includes('class="sr"')).toBe(hideLabel);
    }
  });

  it("finds nothing wrong with a figure it shows itself", async () => {
    for (const modelValue of [1, 127, IN / 3, 10 ** 6].map(Math.round)) {
      expect(await field({ modelValue })).toContain('aria-invalid="false"');
    }
  });

  it("shows a warp that bends the other way", async () => {
    expect(await field({ modelValue: -IN / 4, signed: true })).toContain('value="-1/4"');
  });

  it("shows the figure a formula comes to, and the formula when asked", async () => {
    const html = await field({ formula: "W - 2" });
    expect(html).toContain('value="2 1/2"');
    expect(html).toContain('title="= W - 2"');
    expect(html).toContain("formed");
    expect(await field({ formula: "" })).not.toContain("formed");
  });
});
