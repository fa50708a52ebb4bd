// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { supplyOf } from '../../src/core/checkin/supply';
import { readOff } from '../../src/core/checkin/weighing';
import { useCheckin } from '../../src/islands/checkin/useCheckin';
import { keepSample, sampleKey, storedSample } from '../../src/islands/checkin/weigh/samples';
import { useWeighing } from '../../src/islands/checkin/weigh/useWeighing';
import { useKitup } from '../../src/islands/kitup/useKitup';
import type { CheckinView } from '../../src/server/checkin/contract';
import type { KitupView } from '../../src/server/kitup/contract';
import { line, sampleCanvas } from '../core/samples';
import { type Answers, type Asked, standInFetch } from './requests';
import { SETTLE_MS, say, standInSource } from './standInSource';

/** Requests in their order, and what each is answered with. */
let asked: Asked[] = [];
let answer: Answers = () => Response.json({});
beforeEach(() => {
  localStorage.clear();
  asked = standInFetch((request) => answer(request));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const canvas = (id: string): Canvas => sampleCanvas({ id, title: 'T' });

describe('useCheckin', () => {
  const legend = [line(1), line(2)];
  const view = (revision: number, bags: CheckinView['bags'] = []): CheckinView => ({
    revision,
    supply: supplyOf(legend, bags, 200),
    summary: {
      colours: 2,
      missing: 2,
      short: 0,
      tight: 0,
      strays: 0,
      bags: 0,
      expectedBags: 2,
      bagsToFind: 2,
    },
    sentence: `revision ${revision}`,
    bags,
    history: { undo: null, redo: null },
    strayMatches: [],
    findings: [],
    trash: { handled: 200, thrown: 6, share: 0.03 },
    trashRecords: [],
    filling: { deviation: 0, spread: 0.03, bags: 0 },
  });

  it('takes two like bags as two, and never goes back to an older answer', async () => {
    let revision = 1;
    answer = ({ method, body }) => {
      if (method === 'GET') return Response.json(view(1), { headers: { etag: '"1"' } });
      revision++;
      const { findings: _, trash: __, trashRecords: ___, ...rest } = view(revision);
      return Response.json({ ...rest, sentence: `bag ${String(body!.label)}` }, { status: 201 });
    };
    const { result } = renderHook(() => useCheckin('c1', view(1)));
    act(() => {
      result.current.enterBag({ line: 1, label: 'same' });
      result.current.enterBag({ line: 1, label: 'same' });
    });
    await waitFor(() => expect(asked.filter(({ method }) => method === 'POST')).toHaveLength(2));
    const ids = asked.filter(({ method }) => method === 'POST').map(({ body }) => body!.id);
    expect(new Set(ids).size).toBe(2);
    await waitFor(() => expect(result.current.view.revision).toBe(3));
    // The first poll was asked before and answered with revision 1.
    expect(result.current.view.sentence).toBe('bag same');
  });

  it('shows what was counted at another screen, and goes on while the server is away', async () => {
    standInSource();
    // No other file follows it: the feed of a worker outlives its files.
    const followed = 'counted-elsewhere';
    let now = 1;
    answer = () => {
      if (now === 0) throw new TypeError('no network');
      return Response.json(view(now));
    };
    const { result } = renderHook(() => useCheckin(followed, view(1)));
    const wait = () => act(() => new Promise<void>((resolve) => setTimeout(resolve, SETTLE_MS)));
    const told = async (canvas: string, parts: string[]) => {
      await say(canvas, 'changed', { parts, by: { screen: 'elsewhere', device: 'Phone' } });
      await wait();
    };
    await wait();
    now = 0;
    await told(followed, ['bags']);
    expect(result.current.view.sentence).toBe('revision 1');
    now = 5;
    // Of another canvas, and of what this page does not show.
    await told('c3', ['bags']);
    await told(followed, ['pots']);
    expect(result.current.view.sentence).toBe('revision 1');
    await told(followed, ['bags']);
    expect(result.current.view.sentence).toBe('revision 5');
    now = 2;
    await told(followed, ['trash']);
    expect(result.current.view.sentence).toBe('revision 5');
  });
});

describe('useKitup', () => {
  const view = (filled: number[]) => ({ filled }) as unknown as KitupView;

  it('notes what became of a pot, plans, and undoes, each by its own route', async () => {
    answer = ({ method, body }) =>
      Response.json(view(method === 'GET' ? [] : body?.kind === 'fill' ? [3] : [9]), { status: 200 });
    const { result } = renderHook(() => useKitup('c1', view([])));
    await act(async () => expect(await result.current.note({ line: 3, kind: 'fill' })).toBe(true));
    expect(result.current.view.filled).toEqual([3]);
    await act(async () => {
      await result.current.plan({
        storageIds: [],
        order: 'code',
        leave: 'fewest drills',
        goals: [],
        several: true,
        locks: [],
      });
    });
    act(() => result.current.undo('e1'));
    act(() => result.current.redo('e2'));
    await waitFor(() => expect(asked.filter(({ method }) => method !== 'GET')).toHaveLength(4));
    expect(asked.filter(({ method }) => method !== 'GET').map(({ method, url }) => [method, url])).toEqual([
      ['POST', '/api/canvases/c1/kitup/pots'],
      ['PUT', '/api/canvases/c1/kitup'],
      ['POST', '/api/canvases/c1/kitup/pots'],
      ['POST', '/api/canvases/c1/kitup/pots'],
    ]);
    expect(
      asked.filter(({ method }) => method !== 'GET').map(({ body }) => body!.undoes ?? body!.redoes),
    ).toEqual([undefined, undefined, 'e1', 'e2']);
  });

  it('keeps what is shown when a plan is refused, and says why', async () => {
    answer = ({ method }) =>
      method === 'GET'
        ? Response.json(view([1]))
        : Response.json({ detail: 'The slot for 412 is not free.' }, { status: 409 });
    const { result } = renderHook(() => useKitup('c1', view([1])));
    await act(async () => expect(await result.current.note({ line: 3, kind: 'fill' })).toBe(false));
    expect(result.current.fault).toBe('The slot for 412 is not free.');
    expect(result.current.view.filled).toEqual([1]);
  });
});

describe('useWeighing', () => {
  const STEP = { stepGrams: 0.01 };
  const weighed = (id = 'c1', of = line(1)) =>
    renderHook(({ line: now }) => useWeighing(canvas(id), now, 'own-0.01', 0.01), {
      initialProps: { line: of },
    });

  it('wants a zero first, and reckons every weight from it', () => {
    const { result } = weighed();
    act(() => result.current.takeSample(50, readOff(0.33, STEP)));
    expect(result.current.fault).toBe('Zero the scale first, with nothing on it.');
    act(() => result.current.setZero(readOff(0.02, STEP)));
    act(() => result.current.takeSample(50, readOff(0.33, STEP)));
    act(() => result.current.takeTare(readOff(0.5, STEP), false));
    act(() => result.current.takeFull(readOff(1.74, STEP)));
    // (1.74 − 0.5) × 50 ÷ (0.33 − 0.02) = 200
    expect(result.current.count!.drills).toBeCloseTo(200, 9);
    act(() => result.current.forgetFull());
    expect(result.current.count).toBeNull();
    expect(result.current.sample!.grams).toBeCloseTo(0.31, 9);
  });

  it('keeps a sample for its canvas and finish, over a reload, and no other’s', () => {
    const { result, rerender } = weighed();
    act(() => result.current.setZero(readOff(0, STEP)));
    act(() => result.current.takeSample(50, readOff(0.31, STEP)));
    const { id } = result.current.sample!;
    rerender({ line: line(2, { finish: 'glow' }) });
    expect(result.current.sample).toBeNull();
    cleanup();
    expect(weighed().result.current.sample?.id).toBe(id);
    expect(weighed('c2').result.current.sample).toBeNull();
  });

  it('has none where the next one could not be taken: an old weight is not that of another bag', () => {
    vi.useFakeTimers();
    const { result } = weighed();
    act(() => result.current.setZero(readOff(0, STEP)));
    act(() => result.current.takeSample(50, readOff(0.31, STEP)));
    act(() => result.current.takeTare(readOff(0.5, STEP), false));
    act(() => result.current.takeFull(readOff(1.74, STEP)));
    expect(result.current.count!.drills).toBeCloseTo(200, 9);
    // Three minutes later its zero is too old for another one.
    vi.advanceTimersByTime(180_000);
    act(() => result.current.takeFull(readOff(9.99, STEP)));
    expect(result.current.fault).toContain('2 minutes old');
    expect([result.current.full, result.current.count]).toEqual([null, null]);
    act(() => result.current.takeTare(readOff(0.6, STEP), false));
    expect(result.current.tare).toBeNull();
    act(() => result.current.takeSample(50, readOff(0.4, STEP)));
    expect(result.current.sample).toBeNull();
  });

  it('keeps a sample that is typed once it is done, and not as far as it has come', () => {
    const { result } = weighed('typed');
    const stored = () => storedSample(sampleKey(canvas('typed'), line(1), 'own-0.01'));
    act(() => result.current.setZero(readOff(0, STEP)));
    act(() => result.current.takeSample(50, readOff(0.3, STEP), true));
    expect(stored()).toBeNull();
    act(() => result.current.takeSample(50, readOff(0.31, STEP), true));
    act(() => result.current.keepSample());
    expect(stored()!.grams).toBeCloseTo(0.31, 9);
    act(() => result.current.forgetSample());
    act(() => result.current.keepSample());
    expect(stored()!.grams).toBeCloseTo(0.31, 9);
    act(() => result.current.takeTare(readOff(0.5, STEP), false));
    act(() => result.current.forgetTare());
    expect(result.current.tare).toBeNull();
  });

  it('takes no sample that weighs nothing, and no stored one that is broken', () => {
    const { result } = weighed();
    act(() => result.current.setZero(readOff(0, STEP)));
    act(() => result.current.takeSample(50, readOff(0, STEP)));
    expect(result.current.fault).toContain('weighs nothing');
    expect(result.current.sample).toBeNull();
    const key = sampleKey(canvas('c1'), line(1), 'own-0.01');
    localStorage.setItem(key, '{"pieces": 50, "grams": 0.31}');
    expect(storedSample(key)).toBeNull();
    localStorage.setItem(key, 'not JSON');
    expect(storedSample(key)).toBeNull();
    keepSample(key, { id: 'a', pieces: 50, grams: 0.31, uncertainty: 0.004 });
    expect(storedSample(key)).toMatchObject({ pieces: 50 });
  });
});
