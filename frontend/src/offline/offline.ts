/**
 * Runs beside the pages: the application opens and the day's steps can be read when the server is
 * out of reach.
 */
import { keptAs, cacheFirst, networkFirst, wayOf } from "./strategies";

/** The little of a worker's world that is used here; its library does not go together with a page's. */
interface Fetched extends Event {
  request: Request;
  respondWith(answer: Promise<Response>): void;
}
interface Lived extends Event {
  waitUntil(done: Promise<unknown>): void;
}
const worker = self as unknown as {
  location: Location;
  addEventListener(type: "fetch", heard: (event: Fetched) => void): void;
  addEventListener(type: "install" | "activate", heard: (event: Lived) => void): void;
  skipWaiting(): Promise<void>;
  clients: { claim(): Promise<void> };
};
const PLACE = "vivid plank";

worker.addEventListener("install", (event) => event.waitUntil(worker.skipWaiting()));
worker.addEventListener("activate", (event) => event.waitUntil(worker.clients.claim()));
worker.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  const way = wayOf(request.method, url, worker.location.origin, request.mode === "navigate");
  if (way === "none") return;
  const answered = caches
    .open(PLACE)
    .then((kept) =>
      (way === "file" ? cacheFirst : networkFirst)(keptAs(way, url), kept, () => fetch(request)),
    );
  event.respondWith(answered);
});
