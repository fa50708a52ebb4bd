// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useFreshness } from '../../src/islands/freshness/useFreshness';
import { theShown } from '../../src/islands/live/shownParts';
import { theOutbox } from '../../src/islands/writing/outbox';
import { theScreen } from '../../src/islands/writing/screen';
import { toldMark } from './liveWorld';
import { standInSource, say as tell } from './standInSource';

/** A canvas that no other file follows: the feed of a worker outlives its files, and opens no stream for what it follows. */
const CANVAS = 'left-open';
/** The stream tells of this canvas. */
const say = (event: string, data: object) => tell(CANVAS, event, data);

beforeEach(() => {
  vi.useFakeTimers({
    toFake: ['setInterval', 'clearInterval', 'Date'],
    now: new Date('2026-05-01T20:00:00'),
  });
  standInSource();
  vi.stubGlobal('fetch', async () => Response.json({ percent: 12 }));
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const settle = (ms = 20) => act(() => new Promise<void>((resolve) => setTimeout(resolve, ms)));
/** Longer than an answer to a write of one's own may take to come. */
const CONFIRMED_MS = 1700;
const pass = async (ms: number) => {
  await act(async () => void vi.advanceTimersByTime(ms));
  await settle();
};
async function opened() {
  const { result } = renderHook(() => useFreshness(CANVAS));
  // The stream opens a moment later.
  await settle(200);
  return result;
}

describe('a page that was left open', () => {
  it('notices what was done elsewhere, by whom, and nothing of another canvas', async () => {
    const page = await opened();
    await tell('c2', 'changed', { parts: ['bags'], by: { screen: 'x', device: 'Tablet' } });
    await settle();
    expect(page.current.kind).toBe('fresh');
    await say('changed', { parts: ['bags'], by: { screen: 'x', device: 'Tablet' } });
    await settle();
    expect(page.current).toEqual({ kind: 'changed', part: 'bags', by: 'Tablet' });
  });

  it('does not take its own writes, or what it shows already, for others’', async () => {
    const page = await opened();
    await say('changed', { parts: ['bags'], by: { screen: theScreen().current(), device: 'Desk' } });
    await settle();
    const hidden = theShown(CANVAS).add(['bags', 'marks']);
    await say('changed', { parts: ['bags'], by: { screen: 'x', device: 'Tablet' } });
    await say('mark', toldMark(0, 3, 'lay', [0, 1]));
    await settle();
    expect(page.current.kind).toBe('fresh');
    hidden();
    await say('mark', toldMark(3, 4, 'lay', [2, 1]));
    await settle();
    expect(page.current).toEqual({ kind: 'changed', part: 'marks', by: 'Tablet' });
  });

  it('where nobody knows who wrote, waits for the answer to its own write', async () => {
    const page = await opened();
    await say('changed', { parts: ['pots'], by: null });
    await act(() => theOutbox().put('POST', `/api/canvases/${CANVAS}/bags`, { id: 'x' }, CANVAS));
    await settle(CONFIRMED_MS);
    expect(page.current.kind).toBe('fresh');
    await settle(3000);
    await say('changed', { parts: ['pots'], by: null });
    await settle(CONFIRMED_MS);
    expect(page.current).toEqual({ kind: 'changed', part: 'pots', by: null });
  });

  it('notices midnight, and a clock that was set back', async () => {
    const page = await opened();
    vi.setSystemTime(new Date('2026-05-02T00:00:05'));
    await pass(10_000);
    expect(page.current.kind).toBe('yesterday');
    cleanup();
    vi.setSystemTime(new Date('2026-05-02T08:00:00'));
    const other = await opened();
    vi.setSystemTime(new Date('2026-04-30T08:00:00'));
    await pass(10_000);
    expect(other.current.kind).toBe('yesterday');
  });
});
