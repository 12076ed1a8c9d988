/** Starts the service worker, and lets it keep the answers this page has read before it was there. */
import { isAnswer } from "./answers";

export async function register(
  workers: ServiceWorkerContainer,
  origin: string,
  loaded: () => string[],
  ask: (url: string) => Promise<unknown>,
): Promise<void> {
  const first = !workers.controller;
  await workers.register("/offline.js", { type: "module" });
  if (!first) return;
  if (!workers.controller)
    await new Promise((taken) => workers.addEventListener("controllerchange", taken, { once: true }));
  const urls = [...new Set(loaded())].map((url) => new URL(url, origin));
  // Asked once more, now by way of the worker.
  await Promise.allSettled(
    urls.filter((url) => url.origin === origin && isAnswer(url.pathname)).map((url) => ask(url.href)),
  );
}
