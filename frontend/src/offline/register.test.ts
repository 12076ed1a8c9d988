import { expect, it, vi } from "vitest";
import { register } from "./register";

const HERE = "http://here";

function workers(controlled: boolean) {
  const heard: (() => void)[] = [];
  return {
    controller: controlled ? {} : null,
    register: vi.fn(async () => undefined),
    addEventListener: (_: string, taken: () => void) => void heard.push(taken),
    heard,
    take: () => heard.forEach((taken) => taken()),
  };
}
const loaded = () => [
  `${HERE}/assets/a.js`,
  `${HERE}/assets/a.js`,
  `${HERE}/api/projects/2/milling`,
  `${HERE}/api/health`,
  "http://elsewhere/assets/b.js",
];

it("hands what was loaded before it to a new worker, once, when it has taken over", async () => {
  const there = workers(false);
  const asked: string[] = [];
  const done = register(there as unknown as ServiceWorkerContainer, HERE, loaded, async (url) =>
    asked.push(url),
  );
  await vi.waitFor(() => expect(there.register).toHaveBeenCalledWith("/offline.js", { type: "module" }));
  await vi.waitFor(() => expect(there.heard).toHaveLength(1));
  expect(asked).toEqual([]);
  there.take();
  await done;
  expect(asked).toEqual([`${HERE}/api/projects/2/milling`]);
});

it("asks nothing again where a worker was there all along", async () => {
  const asked: string[] = [];
  await register(workers(true) as unknown as ServiceWorkerContainer, HERE, loaded, async (url) =>
    asked.push(url),
  );
  expect(asked).toEqual([]);
});
