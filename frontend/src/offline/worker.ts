import { ExpirationPlugin } from "workbox-expiration";
import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  precacheAndRoute,
  type PrecacheEntry,
} from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { NetworkFirst } from "workbox-strategies";

/** Opens the interface again on a paired phone while the computer is away: its files as they were
 * built, and of the library what was last asked for. */
declare const self: ServiceWorkerGlobalScope;
/** The built files, put here by vite.offline.config.ts. */
declare const FILES: PrecacheEntry[];

const ANSWERS = "answers";
const MOST_ANSWERS = 300;
const PATIENCE_S = 3;
/** What is asked for in pieces, or anew all the time. */
const PASSED_BY = /^\/api\/(live|network|stage|uploads)\b|\/film$|\.mp4$|\/stage$|\/pulse$/;
const KEPT_TYPES = /^(application\/json|image\/)/;

/** A phone that is let in no more keeps nothing, also of what is still under way. */
let locked = false;
async function lock() {
  locked = true;
  for (const name of await caches.keys()) await caches.delete(name);
  await self.registration.unregister();
}

const answers = new NetworkFirst({
  cacheName: ANSWERS,
  networkTimeoutSeconds: PATIENCE_S,
  plugins: [
    new ExpirationPlugin({ maxEntries: MOST_ANSWERS }),
    {
      cacheWillUpdate: ({ response }) => {
        const kept = KEPT_TYPES.test(response.headers.get("Content-Type") ?? "");
        return Promise.resolve(!locked && response.status === 200 && kept ? response : null);
      },
      fetchDidSucceed: async ({ response }) => {
        if (response.status === 401) await lock();
        return response;
      },
      // Says to the page that it is not of now.
      cachedResponseWillBeUsed: async ({ cachedResponse }) => {
        if (!cachedResponse) return cachedResponse;
        const headers = new Headers(cachedResponse.headers);
        headers.set("X-Kept", headers.get("Date") ?? "");
        return new Response(await cachedResponse.blob(), { headers });
      },
    },
  ],
});

cleanupOutdatedCaches();
precacheAndRoute(FILES);
// Pages are asked for over the network first: an unpaired phone gets the page that pairs it.
const kept = createHandlerBoundToURL("/index.html");
registerRoute(
  new NavigationRoute(
    async (asked) => {
      const { request } = asked;
      try {
        const page = await fetch(request, { signal: AbortSignal.timeout(1000 * PATIENCE_S) });
        if (page.type === "opaqueredirect") await lock(); // to the page that pairs
        return page;
      } catch {
        return await kept(asked);
      }
    },
    { denylist: [/^\/api\//, /^\/pair/] },
  ),
);
registerRoute(
  ({ url }) => url.pathname.startsWith("/api/") && !PASSED_BY.test(url.pathname),
  answers,
);
self.addEventListener("install", () => void self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));
