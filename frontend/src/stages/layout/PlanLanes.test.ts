// @vitest-environment happy-dom
import { mount } from "@vue/test-utils";
import { describe, expect, it, vi } from "vitest";
import { defineComponent, nextTick, onUpdated, type PropType } from "vue";
import type { Layout, Part } from "../../api/client";
import type { Plan, Segment } from "../../board/geometry";
import { aBoard, IN } from "../../test/making";

const there = vi.hoisted(() => ({ segments: [] as unknown[] }));
vi.mock("vue-router", () => ({ useRoute: () => ({ params: { project: "1" } }) }));
vi.mock("../../api/client", () => ({
  api: {
    POST: (_: string, ask: { body: { board: string } }) =>
      Promise.resolve({
        data: {
          holds: true,
          board: ask.body.board,
          segments: there.segments,
          cost: 1,
          cost_before: 1,
          yields: 0.5,
        },
      }),
  },
}));
const { default: PlanLanes } = await import("./PlanLanes.vue");

const rail = { part: "BR", n: 1, stave: 0 };
const segment = {
  x0: 0,
  x1: 30 * IN,
  y0: 0,
  slope: 0,
  strips: [{ y0: 0, y1: 3 * IN, blanks: [{ x0: 0, x1: 30 * IN, layers: [[rail]] }] }],
} as unknown as Segment;
there.segments = [segment];

describe("boards under one ruler", () => {
  it("draws anew only those that what is carried is on", async () => {
    const drawn = new Map<string, number>();
    const BoardDrawing = defineComponent({
      props: { board: { type: Object as PropType<{ id: string }>, required: true } },
      setup(props) {
        onUpdated(() => drawn.set(props.board.id, (drawn.get(props.board.id) ?? 0) + 1));
        return () => null;
      },
    });
    const lanes = mount(PlanLanes, {
      props: {
        boards: ["O1", "O2", "O3", "O4"].map((id) => aBoard({ id })),
        plan: { boards: [{ board: "O1", segments: [segment] }], unplaced: [], closed: [] } as unknown as Plan,
        parts: [] as Part[],
        layout: { pk: 7, fixings: null } as unknown as Layout,
        system: "in",
        face: "A",
        zoom: 1,
        width: 800,
        chosen: "",
        movable: true,
        drawing: false,
        reasons: {},
        depths: 0,
        picked: rail,
      },
      global: { stubs: { BoardDrawing, RouterLink: true, BoardRuler: true } },
    });
    (lanes.vm as unknown as { carry: () => void }).carry();
    const settled = () => new Promise((done) => setTimeout(done, 0)).then(nextTick);
    await settled();
    for (const key of ["PageDown", "ArrowRight", "ArrowRight"]) {
      window.dispatchEvent(new KeyboardEvent("keydown", { key }));
      await settled();
    }
    expect(drawn.get("O1")).toBeGreaterThan(0);
    expect(drawn.get("O2")).toBeGreaterThan(0);
    expect(drawn.has("O3")).toBe(false);
    expect(drawn.has("O4")).toBe(false);
    lanes.unmount();
  });
});
