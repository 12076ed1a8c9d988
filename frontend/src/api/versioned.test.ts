// @vitest-environment happy-dom
import { QueryClient, VueQueryPlugin } from "@tanstack/vue-query";
import { flushPromises, mount } from "@vue/test-utils";
import { describe, expect, it } from "vitest";
import { defineComponent, h, ref } from "vue";
import { Refused } from "./refused";
import { useVersioned } from "./versioned";

type Value = { a: number; b: number };

/** A server that keeps a value with its version, and counts what it is asked. */
function served() {
  const server = { value: { a: 1, b: 1 }, version: 0, gets: 0, puts: 0 };
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

describe("settings with a version", () => {
  it("go out at once, each change made to what the one before left", async () => {
    const { server, found } = served();
    await flushPromises();
    void found.change((now) => ({ ...now, a: 2 }));
    await found.change((now) => ({ ...now, b: 3 }));
    expect(server).toMatchObject({ value: { a: 2, b: 3 }, gets: 1, puts: 2 });
    expect(found.value.value).toEqual({ a: 2, b: 3 });
  });

  it("take nothing back of what somebody else has set meanwhile", async () => {
    const { server, found } = served();
    await flushPromises();
    Object.assign(server, { value: { a: 9, b: 1 }, version: 5 });
    await found.change((now) => ({ ...now, b: 3 }));
    expect(server).toMatchObject({ value: { a: 9, b: 3 }, version: 6, puts: 2 });
    expect(found.refusals.value).toBe(0);
  });
});
