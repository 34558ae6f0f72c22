/// <reference lib="webworker" />
import { registerRoute } from 'workbox-routing';
import { CacheFirst, NetworkFirst } from 'workbox-strategies';

declare const self: ServiceWorkerGlobalScope;

const CACHE = 'marvek-walk';
// The server's answers vary by who asks; here there is only one person, and signing out clears all.
const matchOptions = { ignoreVary: true };
const fresh = new NetworkFirst({ cacheName: CACHE, networkTimeoutSeconds: 4, matchOptions });

// Files with a hash in their name never change; the page itself and the survey are asked for anew
// whenever there is a connection.
registerRoute(({ url }) => url.pathname.startsWith('/assets/'), new CacheFirst({ cacheName: CACHE, matchOptions }));
registerRoute(({ request }) => request.mode === 'navigate', fresh);
registerRoute(
  ({ url, request }) =>
    request.method === 'GET' &&
    /^\/api\/(layouts\/[^/]+(\/road)?|sessions\/[^/]+(\/(log|trials|readiness|rehearsal|rehearsed))?|references\/[^/]+(\/road)?|catalogue|session|paddock|events)$/.test(
      url.pathname,
    ),
  fresh,
);

self.addEventListener('install', () => void self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
self.addEventListener('message', (event) => {
  const keep: unknown = (event.data as { keep?: unknown }).keep;
  if (!Array.isArray(keep)) return;
  event.waitUntil(
    caches
      .open(CACHE)
      .then((cache) =>
        Promise.all(
          keep
            .filter((url): url is string => typeof url === 'string' && new URL(url).origin === self.location.origin)
            .filter(
              (url) =>
                !/\/api\//.test(url) || /\/api\/(layouts|sessions?|references|catalogue|paddock|events)/.test(url),
            )
            .map((url) => cache.add(url).catch(() => undefined)),
        ),
      )
      .then(() => event.ports[0]?.postMessage('kept')),
  );
});
