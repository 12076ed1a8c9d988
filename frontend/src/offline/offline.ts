/**
 * Runs beside the pages (a service worker): the application opens, with every page of it, and what was read last can be
 * read again when the server is out of reach. A new version waits until no page of the one before is open, so that none
 * misses a file of its own.
 */
import { clientsClaim } from "workbox-core";
import {
  cleanupOutdatedCaches,
  matchPrecache,
  precacheAndRoute,
  type PrecacheEntry,
} from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { NetworkFirst } from "workbox-strategies";
import { isAnswer, labelled } from "./answers";

/** The built files; vite-plugin-pwa writes them in here. */
declare const self: { __WB_MANIFEST: PrecacheEntry[] };

clientsClaim();
// Only under their own names: "/" is a page like any other.
precacheAndRoute(self.__WB_MANIFEST, { directoryIndex: "", cleanURLs: false });
cleanupOutdatedCaches();

// A page is the server's, whose version may be newer; all pages are one.
registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      try {
        return await fetch(request);
      } catch (trouble) {
        const kept = await matchPrecache("/index.html");
        if (kept) return kept;
        throw trouble;
      }
    },
    { denylist: [/^\/api\//] },
  ),
);
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && isAnswer(url.pathname),
  new NetworkFirst({
    cacheName: "answers",
    matchOptions: { ignoreVary: true },
    plugins: [
      { cachedResponseWillBeUsed: async ({ cachedResponse }) => cachedResponse && labelled(cachedResponse) },
    ],
  }),
);
