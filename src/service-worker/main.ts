/// <reference lib="webworker" />
import { clientsClaim } from 'workbox-core';
import { type PrecacheEntry, addPlugins, cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching';
import { registerRoute } from 'workbox-routing';
import { NetworkFirst } from 'workbox-strategies';

/**
 * Keeps the program itself in the browser, so that every station opens without a server. Plans are not its business: they and what
 * is not saved yet are kept by the page.
 */
declare const self: ServiceWorkerGlobalScope;
/** The files of the build, put in when it is bundled. */
declare const FILES: (string | PrecacheEntry)[];
/** The pages of a site; the first is where it begins. */
const STATIONS = /^\/site\/([a-z0-9]+)\/([a-z]+)$/;
const PAGES = 'dianome-pages';

void self.skipWaiting();
clientsClaim();
// The program of a worker is told by what stands behind # in its address, which it loses to the address of a kept file; an
// answer made anew has none of its own.
addPlugins([
  {
    cachedResponseWillBeUsed: async ({ cachedResponse, event }) =>
      cachedResponse && event instanceof FetchEvent && event.request.destination === 'worker'
        ? new Response(cachedResponse.body, cachedResponse)
        : cachedResponse,
  },
]);
precacheAndRoute(FILES);
cleanupOutdatedCaches();

/** A page of a site is the same for every site and station but for what the page itself reads off its address, the query too. */
const pages = new NetworkFirst({
  cacheName: PAGES,
  networkTimeoutSeconds: 8,
  matchOptions: { ignoreSearch: true },
});
registerRoute(
  ({ request, url }) => request.mode === 'navigate' && (url.pathname === '/' || STATIONS.test(url.pathname)),
  pages,
);

/** The page says which pages it may be led to, so that they are here before the server is away. */
self.addEventListener('message', (event) => {
  const { pages: wanted } = event.data as { readonly pages?: readonly string[] };
  if (!wanted) return;
  event.waitUntil(
    caches.open(PAGES).then(async (cache) => {
      for (const page of wanted) {
        const response = await fetch(page, { headers: { accept: 'text/html' } }).catch(() => null);
        if (response?.ok) await cache.put(page, response);
      }
    }),
  );
});
