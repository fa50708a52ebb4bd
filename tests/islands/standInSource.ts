import { act } from '@testing-library/react';
import { vi } from 'vitest';

const listeners = new Map<string, (event: { data: string }) => void>();

class StandInSource {
  addEventListener(name: string, listener: (event: { data: string }) => void) {
    listeners.set(name, listener);
  }
  close() {}
}

/** Puts a stream that is held by hand in place of the page's own. It opens a moment after something is followed. */
export function standInSource(): void {
  vi.stubGlobal('EventSource', StandInSource);
}

/** The stream tells of a canvas. */
export function say(canvas: string | null, event: string, data: object): Promise<void> {
  return act(async () => {
    listeners.get(event)!({ data: JSON.stringify({ ...(canvas && { canvas, stamp: '2-0' }), ...data }) });
  });
}

export const SETTLE_MS = 200;
