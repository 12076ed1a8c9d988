import { QueryClient, QueryObserver } from "@tanstack/vue-query";
import { flushPromises } from "@vue/test-utils";
import { expect, it } from "vitest";
import { FreshQueryClient } from "./queryClient";

/** What is shown where a plan is kept while the list of plans is read for the first time. */
async function shown(client: QueryClient): Promise<string[] | undefined> {
  const kept: string[] = [];
  const answers: (() => void)[] = [];
  const observer = new QueryObserver<string[]>(client, {
    queryKey: ["plans", 1],
    queryFn: () => {
      const read = [...kept]; // as the server has it when it is asked
      return new Promise((resolve) => answers.push(() => resolve(read)));
    },
  });
  const stop = observer.subscribe(() => undefined);
  kept.push("mine");
  void client.invalidateQueries({ queryKey: ["plans"] });
  await flushPromises();
  for (const answer of answers) answer();
  await flushPromises();
  stop();
  return observer.getCurrentResult().data;
}

it("reads again what was asked for the first time before a change", async () => {
  expect(await shown(new FreshQueryClient())).toEqual(["mine"]);
});

it("is needed: the library's own client joins the reading that is on its way", async () => {
  expect(await shown(new QueryClient())).toEqual([]);
});
