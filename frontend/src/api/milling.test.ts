import { beforeEach, describe, expect, it, vi } from "vitest";
import { ref } from "vue";
import { aStep } from "../test/making";

const server = vi.hoisted(() => ({ sent: [] as string[], answers: [] as (() => void)[], down: false }));
const cache = vi.hoisted(() => ({ data: undefined as unknown, asked: 0, cancelled: 0 }));
const told = vi.hoisted(() => [] as string[]);
vi.hoisted(() => vi.stubGlobal("localStorage", { getItem: () => null, setItem: () => undefined }));
vi.mock("element-plus", () => ({ ElMessage: (m: { message: string }) => told.push(m.message) }));
vi.mock("./client", async () => {
  const { Refused } = await import("./refused");
  return {
    Refused,
    api: {
      PUT: (_: string, ask: { body: { key: string } }) =>
        new Promise<void>((done, fail) => {
          if (server.down) return fail(new Refused(0, "no answer"));
          server.sent.push(ask.body.key);
          server.answers.push(
            ask.body.key === "bad" ? () => fail(new Refused(422, "expected a step")) : done,
          );
        }),
    },
  };
});
vi.mock("@tanstack/vue-query", () => ({
  useQuery: () => ({
    data: {
      get value() {
        return cache.data;
      },
    },
  }),
  useMutation: () => ({}),
  useQueryClient: () => ({
    setQueryData: (_: unknown, next: unknown) => void (cache.data = next),
    cancelQueries: async () => void cache.cancelled++,
    invalidateQueries: async () => void cache.asked++,
  }),
}));
vi.mock("vue", async (original) => ({
  ...(await original<typeof import("vue")>()),
  onMounted: () => undefined,
  onBeforeUnmount: () => undefined,
}));
const { useMilling } = await import("./milling");
const { unsent } = await import("./outbox");

type Shown = { routes: { steps: { key: string; done: boolean; ready: boolean }[] }[] };
const done = () => (cache.data as Shown).routes[0]!.steps.filter((s) => s.done).map((s) => s.key);
const settle = () => new Promise((later) => setTimeout(later, 0));

beforeEach(() => {
  cache.data = {
    layout: 1,
    routes: [
      { board: "O1", steps: [aStep("a", { ready: true }), aStep("b", { after: ["a"] }), aStep("bad")] },
    ],
  };
  Object.assign(cache, { asked: 0, cancelled: 0 });
  server.sent.splice(0);
  server.answers.splice(0);
  server.down = false;
  told.splice(0);
  unsent.value = [];
});

describe("ticking a step off", () => {
  it("is seen at once, and makes ready what waited for it", async () => {
    const { mark } = useMilling(ref(1));
    void mark("a", true);
    expect(done()).toEqual(["a"]);
    expect((cache.data as Shown).routes[0]!.steps[1]!.ready).toBe(true);
    expect(cache.cancelled).toBe(1); // an older answer shall not take it back
  });

  it("asks the server again only when no other tick is on its way", async () => {
    const { mark } = useMilling(ref(1));
    void mark("a", true);
    void mark("b", true);
    server.answers[0]!();
    await settle();
    expect(cache.asked).toBe(0);
    server.answers[1]!();
    await settle();
    expect(cache.asked).toBe(1);
    expect(done()).toEqual(["a", "b"]);
  });

  it("is kept where the server is out of reach, and stays ticked", async () => {
    const { mark } = useMilling(ref(1));
    server.down = true;
    await mark("a", true, { reading: 6096, minutes: 1.5 });
    expect(unsent.value).toEqual([
      { layout: 1, key: "a", done: true, reading: 6096, minutes: 1.5, passes: null, who: "" },
    ]);
    expect(done()).toEqual(["a"]);
    expect([cache.asked, told.length]).toEqual([0, 0]);
  });

  it("waits its turn behind those that are kept", async () => {
    const { mark } = useMilling(ref(1));
    server.down = true;
    await mark("a", true);
    await settle(); // it has been tried in vain
    server.down = false;
    void mark("b", true);
    await settle();
    expect(server.sent).toEqual(["a"]); // the older one goes first
    server.answers[0]!();
    await settle();
    expect(server.sent).toEqual(["a", "b"]);
    server.answers[1]!();
    await settle();
    expect(unsent.value).toEqual([]);
  });

  it("that is refused is told, and the list is asked for again", async () => {
    const { mark } = useMilling(ref(1));
    void mark("bad", true);
    server.answers[0]!();
    await settle();
    expect(told).toEqual(["Not kept: expected a step"]);
    expect(cache.asked).toBe(1);
  });
});
