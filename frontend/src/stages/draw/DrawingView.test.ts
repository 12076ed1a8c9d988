import { expect, it } from "vitest";
import { shaded } from "../../board/geometry";
import { drawn } from "../../test/making";
import DrawingView from "./DrawingView.vue";

const ring = [
  [0, 0],
  [10, 0],
  [10, 5],
];
const views = [
  {
    name: "front",
    width: 100,
    height: 50,
    shapes: [
      { ref: "s1", outline: ring, shade: 1 },
      { ref: "s2", outline: ring, shade: 0.5 },
    ],
    lines: [ring],
    words: [{ at: [3, 4], text: "Rail" }],
  },
  { name: "side", width: 100, height: 50, shapes: [], lines: [], words: [] },
];
const props = {
  views,
  chosen: new Set(["s2"]),
  species: () => "ash",
  names: (ref: string) => `piece ${ref}`,
};

it("draws every shape in the drawing's order and marks the chosen one", async () => {
  const html = await drawn(DrawingView, props);
  expect([...html.matchAll(/data-ref="(s\d)"/g)].map((m) => m[1])).toEqual(["s1", "s2"]);
  expect(html).toMatch(/class="[^"]*chosen[^"]*"[^>]*data-ref="s2"/);
  expect(html).toContain("piece s1");
  expect(html).toContain(">Rail</text>");
});

it("offers the views by name, and none where there is but one", async () => {
  expect(await drawn(DrawingView, props)).toContain("side");
  expect(await drawn(DrawingView, { ...props, views: [views[0]] })).not.toContain(">front</button>");
});

it("shows the whole drawing with a margin to begin with", async () => {
  expect(await drawn(DrawingView, props)).toContain('viewBox="-6 -6 112 62"');
});

it("wood in the shade is darker and stays wood", () => {
  expect(shaded("#e3c290", 1)).toBe("#e3c290");
  expect(parseInt(shaded("#e3c290", 0.2).slice(1, 3), 16)).toBeLessThan(0xe3);
});
