/** Starts the worker, and lets it keep what this page has loaded before it was there. */
import { wayOf } from "./strategies";

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
  const urls = ["/", ...new Set(loaded())].map((url) => new URL(url, origin));
  // Asked once more, now by way of the worker.
  await Promise.allSettled(
    urls.filter((url) => wayOf("GET", url, origin, false) !== "none").map((url) => ask(url.href)),
  );
}
