import { KEPT_ANSWERS, KEPT_PAGES } from '../../service/kept';

/** Several marks in a row are one keeping. */
const GATHER_MS = 1000;

/** Begins to keep what is opened on this device, so that it opens again while the machine with the data is away. */
export async function beginKeeping(canvasId: string | null): Promise<void> {
  // The machine itself needs none, and without trust the browser lets none in.
  if (location.protocol !== 'https:' || !('serviceWorker' in navigator)) return;
  try {
    await navigator.serviceWorker.register('/service.js');
    const { active } = await navigator.serviceWorker.ready;
    if (canvasId !== null) active?.postMessage({ keep: canvasId });
  } catch {
    // The device does not trust this address: all works, but only while the machine answers.
  }
}

/** Throws away what was kept to be read, where a device is not let in any more. What waits to be sent stays. */
export async function forgetKept(): Promise<void> {
  if (typeof caches === 'undefined') return;
  for (const name of [KEPT_PAGES, KEPT_ANSWERS]) await caches.delete(name);
  // What is still on its way there the service worker alone knows of, where there is one.
  const registration = await navigator.serviceWorker?.getRegistration().catch(() => undefined);
  registration?.active?.postMessage({ forget: true });
}

const waiting = new Map<string, ReturnType<typeof setTimeout>>();

/**
 * Keeps what is laid as it stands now in place of what was kept when the page was opened.
 * @param laid as the ledger has it @param position of the last mark in it
 */
export function keepLaid(canvasId: string, laid: () => { bitmap: Uint8Array; position: number }): void {
  if (typeof caches === 'undefined' || location.protocol !== 'https:') return;
  clearTimeout(waiting.get(canvasId));
  const timer = setTimeout(() => {
    waiting.delete(canvasId);
    const { bitmap, position } = laid();
    const answer = new Response(Uint8Array.from(bitmap), {
      headers: { 'content-type': 'application/octet-stream', 'x-oculent-stamp': `0-${position}` },
    });
    caches
      .open(KEPT_ANSWERS)
      .then((cache) => cache.put(`/api/canvases/${canvasId}/bitmap`, answer))
      // A full store: what was kept before stays, and the ledger tells the rest.
      .catch(() => {});
  }, GATHER_MS);
  waiting.set(canvasId, timer);
}
