// @vitest-environment happy-dom
import { flushPromises } from "@vue/test-utils";
import { effectScope, ref } from "vue";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Refused } from "../../api/refused";
import type { Scale } from "./takeoff";

type Ask = { params: { path: { drawing: number } }; body: { version: number; scales: Scale[] } };
const server = vi.hoisted(() => ({
  puts: [] as [number, number, number][],
  fails: [] as unknown[],
  version: 3,
}));
vi.mock("../../api/client", async () => ({
  Refused: (await import("../../api/refused")).Refused,
  api: {
    GET: async () => ({ data: { version: server.version, scales: [], marks: [] } }),
    PUT: async (_: string, { params, body }: Ask) => {
      const problem = server.fails.shift();
      if (problem) throw problem;
      server.puts.push([params.path.drawing, body.version, body.scales.length]);
      return { data: { version: body.version + 1 } };
    },
  },
}));
vi.mock("element-plus", () => ({ ElMessage: vi.fn() }));
const { useMarks } = await import("./useMarks");

const scale = (id: string): Scale => ({ id, page: 0, name: id, a: [0, 0], b: [1, 0], distance: 8128 });
const one = { scales: [scale("s1")], marks: [] };
const two = { scales: [scale("s1"), scale("s2")], marks: [] };

describe("the marks on a picture", () => {
  beforeEach(() => Object.assign(server, { puts: [], fails: [], version: 3 }));

  async function begun() {
    const drawing = ref(1);
    const used = effectScope().run(() => useMarks(() => drawing.value, vi.fn()))!;
    await flushPromises();
    return { drawing, ...used };
  }

  it("are not drawn on before those that are kept have come", async () => {
    const used = effectScope().run(() =>
      useMarks(
        () => 1,
        () => undefined,
      ),
    )!;
    expect(used.ready.value).toBe(false);
    await flushPromises();
    expect(used.ready.value).toBe(true);
  });

  it("stay on the screen where the server does not answer, and go out with the next", async () => {
    const { marks, set } = await begun();
    server.fails.push(new Refused(0, "the application does not answer"));
    set(one);
    await flushPromises();
    expect(marks.value.scales).toHaveLength(1);
    set(two);
    await flushPromises();
    expect(server.puts).toEqual([[1, 3, 2]]);
  });

  it("are those of somebody else where these are newer", async () => {
    const { marks, set } = await begun();
    server.fails.push(new Refused(409, "somebody else has marked it"));
    server.version = 9;
    set(one);
    await flushPromises();
    expect(marks.value.scales).toHaveLength(0);
    set(one);
    await flushPromises();
    expect(server.puts).toEqual([[1, 9, 1]]);
  });

  it("go to the drawing they were made on, though another is shown meanwhile", async () => {
    const { drawing, set } = await begun();
    set(one);
    set(two);
    drawing.value = 2;
    await flushPromises();
    expect(server.puts).toEqual([
      [1, 3, 1],
      [1, 4, 2],
    ]);
  });
});
