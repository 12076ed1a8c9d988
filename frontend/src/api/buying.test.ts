// @vitest-environment happy-dom
import { QueryClient, VueQueryPlugin } from "@tanstack/vue-query";
import { flushPromises, mount } from "@vue/test-utils";
import { expect, it, vi } from "vitest";
import { defineComponent, h, ref } from "vue";
import type { Supplier } from "./buying";

const server = vi.hoisted(() => ({
  kept: {} as Record<string, unknown>,
  answers: [] as (() => void)[],
}));
vi.mock("./client", () => ({
  api: {
    GET: () => {
      const read = { data: { suppliers: [{ ...server.kept }] } };
      return new Promise((done) => server.answers.push(() => done(read)));
    },
    PUT: (_: string, ask: { body: { supplier: Record<string, unknown> } }) =>
      new Promise<void>((done) =>
        server.answers.push(() => {
          server.kept = ask.body.supplier;
          done();
        }),
      ),
  },
}));
const { useBuying, useSuppliers } = await import("./buying");

it("keeps both of two fields of a supplier typed one after the other, whatever is on its way", async () => {
  server.kept = { id: "mill", trip: 5, moisture: 9 };
  const client = new QueryClient();
  const found = {} as ReturnType<typeof useBuying> & { shown: ReturnType<typeof useSuppliers>["data"] };
  mount(
    defineComponent({
      setup() {
        Object.assign(found, useBuying(ref(1)), { shown: useSuppliers().data });
        return () => h("p");
      },
    }),
    { global: { plugins: [[VueQueryPlugin, { queryClient: client }]] } },
  );
  const answer = async () => {
    server.answers.shift()!();
    await flushPromises();
  };
  const supplier = () => client.getQueryData<Supplier[]>(["suppliers"])![0]!;
  await answer();
  void client.invalidateQueries({ queryKey: ["suppliers"] }); // read before the first is typed
  await flushPromises();
  found.putSupplier.mutate({ ...supplier(), trip: 6 } as Supplier);
  await flushPromises();
  await answer(); // the old reading comes
  expect(supplier()).toMatchObject({ trip: 6 });
  found.putSupplier.mutate({ ...supplier(), moisture: 12 } as Supplier);
  await flushPromises();
  while (server.answers.length) await answer();
  expect(server.kept).toMatchObject({ trip: 6, moisture: 12 });
  expect(supplier()).toMatchObject({ trip: 6, moisture: 12 });
  client.clear();
});
