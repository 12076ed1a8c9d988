import { expect, it } from "vitest";
import { drawn, IN, words } from "../../test/making";
import PatternSketch from "./PatternSketch.vue";

const sketch = {
  name: "front",
  width: 400,
  height: 300,
  rects: [{ part: "Stile", x: 0, y: 0, w: 57, h: 300 }],
  dims: [
    { along: "x", start: 0, end: 400, tier: 1, figure: 16 * IN },
    { along: "y", start: 0, end: 300, tier: 0, figure: 12.5 * IN },
  ],
};

it("draws the parts to scale with the figures on their dimension lines", async () => {
  const html = await drawn(PatternSketch, { sketch, system: "in", species: "ash" });
  expect(html).toContain('width="57"');
  expect(words(html)).toContain("16");
  expect(words(html)).toContain("12 1/2");
  expect(html).toContain('aria-label="front view"');
});

it("writes them in the project's own notation", async () => {
  expect(words(await drawn(PatternSketch, { sketch, system: "mm", species: "ash" }))).toContain("317.5");
});
