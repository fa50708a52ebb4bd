// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { announceShown, useFreshness } from '../../src/islands/freshness/useFreshness';
import { theOutbox } from '../../src/islands/writing/outbox';

let stamp = '1-1';
let away = false;
beforeEach(() => {
  stamp = '1-1';
  away = false;
  vi.useFakeTimers({
    toFake: ['setInterval', 'clearInterval', 'Date'],
    now: new Date('2026-05-01T20:00:00'),
  });
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}) => {
    if (away) throw new TypeError('no network');
    if (init.method === 'POST') stamp = `${Number(stamp[0]) + 1}-1`;
    return Response.json(url.endsWith('/stamp') ? { stamp } : {});
  });
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const settle = (ms = 20) => act(() => new Promise<void>((resolve) => setTimeout(resolve, ms)));
/** Longer than a difference is looked at a second time. */
const CONFIRMED_MS = 1700;
const pass = async (ms: number) => {
  await act(async () => void vi.advanceTimersByTime(ms));
  await settle();
};
async function opened() {
  const { result } = renderHook(() => useFreshness('c1'));
  await settle();
  return result;
}

describe('a page that was left open', () => {
  it('notices what was done elsewhere, and nothing else', async () => {
    const page = await opened();
    await pass(30_000);
    expect(page.current).toBe('fresh');
    stamp = '1-2';
    await pass(10_000);
    expect(page.current).toBe('fresh');
    await settle(CONFIRMED_MS);
    expect(page.current).toBe('changed');
  });

  it('does not take its own writes, or what it shows already, for others’', async () => {
    const page = await opened();
    await act(() => theOutbox().put('POST', '/api/canvases/c1/bags', { id: 'x' }, 'c1'));
    await settle();
    await pass(30_000);
    expect(stamp).toBe('2-1');
    expect(page.current).toBe('fresh');
    stamp = '7-1';
    act(announceShown);
    await settle();
    await pass(30_000);
    expect(page.current).toBe('fresh');
  });

  it('waits for the answer to its own write before it takes a difference for others’', async () => {
    const page = await opened();
    // The write is done, and its answer still under way.
    stamp = '2-1';
    await pass(10_000);
    act(announceShown);
    await settle(CONFIRMED_MS);
    await pass(30_000);
    expect(page.current).toBe('fresh');
  });

  it('notices midnight, and a clock that was set back', async () => {
    const page = await opened();
    vi.setSystemTime(new Date('2026-05-02T00:00:05'));
    await pass(10_000);
    expect(page.current).toBe('yesterday');
    cleanup();
    vi.setSystemTime(new Date('2026-05-02T08:00:00'));
    const other = await opened();
    vi.setSystemTime(new Date('2026-04-30T08:00:00'));
    await pass(10_000);
    expect(other.current).toBe('yesterday');
  });

  it('is as it was while the server does not answer', async () => {
    const page = await opened();
    away = true;
    await pass(60_000);
    expect(page.current).toBe('fresh');
    away = false;
    stamp = '2-1';
    await pass(10_000);
    await settle(CONFIRMED_MS);
    expect(page.current).toBe('changed');
  });
});
