// @vitest-environment happy-dom
import { mount } from "@vue/test-utils";
import { describe, expect, it } from "vitest";
import { aBoard, IN } from "../test/making";
import BoardDrawing from "./BoardDrawing.vue";
import { plainFault } from "./make";

const fault = plainFault("tight-knot", "A", { x0: 10 * IN, x1: 20 * IN, y0: IN, y1: 3 * IN });

function board(more: object) {
  return mount(BoardDrawing, {
    props: { board: aBoard({ defects: [fault] }), scale: 10, system: "in", pointing: "tap", ...more },
  });
}

describe("a fault under the pointer", () => {
  it("is chosen by a tap", async () => {
    const drawing = board({});
    await drawing.get(".fault").trigger("click", { clientX: 150, clientY: 40 });
    expect(drawing.emitted("defect")).toEqual([[0]]);
    expect(drawing.emitted("place")).toBeUndefined();
  });

  it("lets a corner of an outline be put on it, by a hand that shakes too", async () => {
    const drawing = board({ outlining: true });
    await drawing.get(".fault").trigger("pointerdown", { clientX: 140, clientY: 40 });
    await drawing.get(".fault").trigger("click", { clientX: 150, clientY: 40 });
    expect(drawing.emitted("place")).toHaveLength(1);
    expect(drawing.emitted("defect")).toBeUndefined();
  });

  it("lets a place be drawn inside it", async () => {
    const drawing = board({});
    const mark = drawing.get(".fault");
    await mark.trigger("pointerdown", { clientX: 120, clientY: 30 });
    await mark.trigger("click", { clientX: 170, clientY: 50 });
    expect(drawing.emitted("drawn")).toHaveLength(1);
    expect(drawing.emitted("defect")).toBeUndefined();
  });
});
