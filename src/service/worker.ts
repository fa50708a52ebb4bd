import { cleanupOutdatedCaches, type PrecacheEntry, precacheAndRoute } from 'workbox-precaching';
import { registerRoute, setCatchHandler } from 'workbox-routing';
import { NetworkFirst } from 'workbox-strategies';
import { Keeper } from './keeper';
import { KEPT_ANSWERS, KEPT_PAGES } from './kept';

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
const isGood = ({ status, redirected }: Response) => status === 200 && !redirected;

const keeper = new Keeper(caches, async (url) => {
  const answer = await fetch(url, { headers: { accept: 'text/html,*/*' } }).catch(() => null);
  return answer && isGood(answer) ? answer : null;
});

/** What a plugin keeps for one request. */
interface Underway {
  state?: { begun?: number };
}
/** When a kept answer was written is not what time it is at the machine. */
const undated = (kept: Response): Response => {
  const headers = new Headers(kept.headers);
  headers.delete('date');
  const { status, statusText } = kept;
  return new Response(kept.body, { headers, status, statusText });
};
const onlyGood = {
  handlerWillStart: async ({ state }: Underway) => {
    if (state) state.begun = keeper.begin();
  },
  cacheWillUpdate: async ({ response, state }: Underway & { response: Response }) =>
    isGood(response) && keeper.stands(state?.begun ?? keeper.begin()) ? response : null,
  cachedResponseWillBeUsed: async ({ cachedResponse }: { cachedResponse?: Response }) =>
    cachedResponse && undated(cachedResponse),
  cacheDidUpdate: ({ cacheName, state }: Underway & { cacheName: string }) =>
    keeper.ended(state?.begun ?? keeper.begin(), cacheName),
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

// A page that is open asks for the others of its canvas to be kept too; one that is not let in has all forgotten.
self.addEventListener('message', (event) => {
  const { keep, forget } = (event.data ?? {}) as { keep?: unknown; forget?: unknown };
  if (forget === true) event.waitUntil(keeper.forget());
  if (typeof keep === 'string' && /^[0-9a-f-]{36}$/.test(keep)) event.waitUntil(keeper.keep(keep));
});
