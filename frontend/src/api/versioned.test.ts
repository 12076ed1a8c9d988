// @vitest-environment happy-dom
import { QueryClient, VueQueryPlugin } from "@tanstack/vue-query";
import { flushPromises, mount } from "@vue/test-utils";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { defineComponent, h, ref } from "vue";
import { merged, settingsHeld, settingsTrouble } from "./heldSettings";
import { Refused } from "./refused";
import { useVersioned } from "./versioned";

/** A server that keeps a value with its version, and counts what it is asked. */
function served<Value extends { a: number | string[] }>(value: Value) {
  const server = { value, version: 0, gets: 0, puts: 0, reached: true };
  const client = new QueryClient();
  const found = {} as ReturnType<typeof useVersioned<Value>>;
  mount(
    defineComponent({
      setup() {
        Object.assign(
          found,
          useVersioned<Value>({
            name: "x",
            of: ref(7),
            get: async () => {
              server.gets++;
              return { value: server.value, version: server.version };
            },
            put: async (_, value, version) => {
              if (!server.reached) throw new TypeError("Failed to fetch");
              if (Number(value.a) < 0) throw new Refused(422, "expected no less than 0");
              server.puts++;
              if (version !== server.version) throw new Refused(409, "somebody else has set it");
              Object.assign(server, { value, version: version + 1 });
              return { value, version: version + 1 };
            },
            stale: [],
          }),
        );
        return () => h("p");
      },
    }),
    { global: { plugins: [[VueQueryPlugin, { queryClient: client }]] } },
  );
  return { server, found };
}

beforeEach(() => localStorage.clear());

describe("settings with a version", () => {
  it("go out at once, each change made to what the one before left", async () => {
    const { server, found } = served({ a: 1, b: 1 });
    await flushPromises();
    void found.change((now) => ({ ...now, a: 2 }));
    await found.change((now) => ({ ...now, b: 3 }));
    expect(server).toMatchObject({ value: { a: 2, b: 3 }, gets: 1, puts: 2 });
    expect(found.value.value).toEqual({ a: 2, b: 3 });
  });

  it("take nothing back of what somebody else has set meanwhile", async () => {
    const { server, found } = served({ a: 1, b: 1 });
    await flushPromises();
    Object.assign(server, { value: { a: 9, b: 1 }, version: 5 });
    await found.change((now) => ({ ...now, b: 3 }));
    expect(server).toMatchObject({ value: { a: 9, b: 3 }, version: 6, puts: 2 });
    expect(found.refusals.value).toBe(0);
  });

  it("change the line they are about, though somebody else has taken one off before it", async () => {
    const { server, found } = served({ a: ["hinges", "glue"] });
    await flushPromises();
    Object.assign(server, { value: { a: ["glue", "wax"] }, version: 5 });
    await found.change(({ a }) => ({ a: a.map((line, k) => (k === 1 ? "much glue" : line)) }));
    expect(server.value.a.sort()).toEqual(["much glue", "wax"]);
    expect(found.refusals.value).toBe(0);
  });

  it("wait where the server is out of reach, and are made to what stands when it answers", async () => {
    vi.useFakeTimers();
    const { server, found } = served({ a: 1, b: 1 });
    await vi.advanceTimersByTimeAsync(10);
    server.reached = false;
    await found.change((now) => ({ ...now, a: 2 }));
    await found.change((now) => ({ ...now, a: now.a + 1 }));
    expect(found.value.value).toEqual({ a: 3, b: 1 });
    expect(settingsHeld.value).toBe(1);
    expect(JSON.parse(localStorage.getItem("settings to send")!)["x 7"].mine).toEqual({ a: 3, b: 1 });
    // Somebody else has set b meanwhile.
    Object.assign(server, { value: { a: 1, b: 8 }, version: 4, reached: true });
    await vi.advanceTimersByTimeAsync(5000);
    expect(server.value).toEqual({ a: 3, b: 8 });
    expect(settingsHeld.value).toBe(0);
    expect(found.value.value).toEqual({ a: 3, b: 8 });
    expect(found.refusals.value).toBe(0);
    vi.useRealTimers();
  });
});

describe("a change that waited and is refused", () => {
  it("is kept with the reason, and sent when it was put right", async () => {
    vi.useFakeTimers();
    const { server, found } = served({ a: 1, b: 1 });
    await vi.advanceTimersByTimeAsync(10);
    server.reached = false;
    await found.change((now) => ({ ...now, a: -4, b: 5 }));
    server.reached = true;
    await vi.advanceTimersByTimeAsync(9000);
    expect(found.value.value).toEqual({ a: -4, b: 5 });
    expect(settingsTrouble.value).toContain("expected no less than 0");
    expect(server.puts).toBe(0);
    await found.change((now) => ({ ...now, a: 4 }));
    await vi.advanceTimersByTimeAsync(5000);
    expect(server.value).toEqual({ a: 4, b: 5 });
    expect([settingsHeld.value, settingsTrouble.value]).toEqual([0, ""]);
    vi.useRealTimers();
  });
});

describe("a change made to what somebody else has changed", () => {
  const line = (name: string, each = 1) => ({ name, each });
  it("is made field by field", () => {
    expect(
      merged({ a: 1, b: { c: 1, d: 1 } }, { a: 1, b: { c: 2, d: 1 } }, { a: 5, b: { c: 1, d: 6 } }),
    ).toEqual({
      a: 5,
      b: { c: 2, d: 6 },
    });
    expect(merged({ a: 1 }, { a: 2 }, { a: 3 })).toEqual({ a: 2 });
    expect(merged({ a: 1, b: 1 }, { a: 1 }, { a: 4, b: 1 })).toEqual({ a: 4 });
  });
  it("adds and takes off lines, and drops none that somebody has typed", () => {
    const base = [line("hinge"), line("glue")];
    const theirs = [line("hinge"), line("glue"), line("oil")];
    expect(merged(base, [line("hinge", 9), line("glue")], base)).toEqual([line("hinge", 9), line("glue")]);
    expect(merged(base, [line("glue"), line("wax")], theirs)).toEqual([
      line("glue"),
      line("oil"),
      line("wax"),
    ]);
  });
});
