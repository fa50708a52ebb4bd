import { cleanupOutdatedCaches, type PrecacheEntry, precacheAndRoute } from 'workbox-precaching';
import { registerRoute, setCatchHandler } from 'workbox-routing';
import { NetworkFirst } from 'workbox-strategies';
import { KEPT_ANSWERS, KEPT_PAGES, keptFor } from './kept';

/*
 * Keeps a canvas that was opened on this device usable while the machine with the data does not answer. Only what is read
 * passes here; what is written waits in the outbox of the pages.
 */

/** What a service worker has around it, as far as it is used here. */
interface Scope {
  __WB_MANIFEST: (PrecacheEntry | string)[];
  skipWaiting(): Promise<void>;
  clients: { claim(): Promise<void> };
  addEventListener(type: 'install', listener: () => void): void;
  addEventListener(
    type: 'activate',
    listener: (event: { waitUntil(work: Promise<unknown>): void }) => void,
  ): void;
  addEventListener(
    type: 'message',
    listener: (event: { data: unknown; waitUntil(work: Promise<unknown>): void }) => void,
  ): void;
}
declare const self: Scope;

/** A machine that is switched off does not refuse: after so long what is kept is shown. */
const PATIENCE_SECONDS = 4;

/** An answer is kept only if it is one; a way to the door is none. */
const onlyGood = {
  cacheWillUpdate: async ({ response }: { response: Response }) =>
    response.status === 200 && !response.redirected ? response : null,
};

self.addEventListener('install', () => void self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();

const pages = new NetworkFirst({
  cacheName: KEPT_PAGES,
  networkTimeoutSeconds: PATIENCE_SECONDS,
  matchOptions: { ignoreSearch: true },
  plugins: [onlyGood],
});
registerRoute(
  ({ request, url }) => request.mode === 'navigate' && !/^\/(join|authority\.crt|api)\b/.test(url.pathname),
  pages,
);
registerRoute(
  ({ url, request }) =>
    request.method === 'GET' &&
    /^\/api\/canvases\/[^/]+\/(chart|bitmap|marks|section-plan|time-model|kitup|stamp|picture\.png)$/.test(
      url.pathname,
    ),
  new NetworkFirst({ cacheName: KEPT_ANSWERS, networkTimeoutSeconds: PATIENCE_SECONDS, plugins: [onlyGood] }),
);
setCatchHandler(async ({ request }) => {
  if (request.mode !== 'navigate') return Response.error();
  return (await caches.match('/offline.html', { ignoreSearch: true })) ?? Response.error();
});

// A page that is open asks for the others of its canvas to be kept too.
self.addEventListener('message', (event) => {
  const keep = (event.data as { keep?: unknown } | null)?.keep;
  if (typeof keep !== 'string' || !/^[0-9a-f-]{36}$/.test(keep)) return;
  event.waitUntil(keepCanvas(keep));
});

async function keepCanvas(canvasId: string): Promise<void> {
  for (const { cache, url } of keptFor(canvasId)) {
    const answer = await fetch(url, { headers: { accept: 'text/html,*/*' } }).catch(() => null);
    if (answer?.status !== 200 || answer.redirected) continue;
    await (await caches.open(cache)).put(url, answer);
  }
}
