// @vitest-environment happy-dom
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { type Bitmap, emptyBitmap, isLaid, setLaid } from '../../src/core/cells/bitmap';
import { makeSection } from '../../src/core/sections/section';
import type { MarkStore } from '../../src/islands/bench/markStore';
import { useBenchRecord } from '../../src/islands/bench/useBenchRecord';
import { useSectionCounts } from '../../src/islands/bench/useSectionCounts';
import { useWideActs } from '../../src/islands/bench/useWideActs';
import { theMachineClock } from '../../src/islands/writing/machineClock';
import { chartOfRows, line } from '../core/samples';
import { type Answers, type Asked, held, standInFetch } from './requests';
import { SETTLE_MS, say, standInSource } from './standInSource';

const chart = chartOfRows('112233', '112.33');
const legend = [line(1), line(2), line(3)];
const left = makeSection(1, [{ x: 0, y: 0, width: 4, height: 2 }]);
const right = makeSection(2, [{ x: 4, y: 0, width: 2, height: 2 }]);
const order = { hasChart: true, school: 'most' as const, ownOrder: [] };

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  cleanup();
});

/** Bitmap, counts and acts of a section, and what they mark. */
function bench(section = left, { hasChart = true, panels = [] as (typeof left.rects)[number][] } = {}) {
  const laid: Bitmap = emptyBitmap(12);
  const marks: { kind: string; cells: number[]; more: object }[] = [];
  const onColour = vi.fn();
  const onMarked = vi.fn();
  const store = {
    preview: (kind: string, cells: readonly number[]) =>
      cells.filter((cell) => isLaid(laid, cell) === (kind === 'lift')),
    commit: (kind: string, cells: readonly number[], _: string | null, more: object) => {
      marks.push({ kind, cells: [...cells], more });
      for (const cell of cells) setLaid(laid, cell, kind === 'lay');
    },
  } as unknown as MarkStore;
  const hook = renderHook(
    ({ wanted, version }: { wanted: number | null; version: number }) => {
      const data = { chart, laid, cut: null, position: 0 };
      const counts = useSectionCounts(data, version, section, legend, { ...order, hasChart }, wanted);
      const canvas = { panelRects: panels };
      const acts = useWideActs({
        ...{ canvas, store, data, version, section, counts, onColour, onMarked, sitting: null },
      });
      return { counts, acts };
    },
    { initialProps: { wanted: null as number | null, version: 0 } },
  );
  return { ...hook, laid, marks, onColour, onMarked, here: hook.result };
}

describe('what there is in a section', () => {
  it('is counted by colour, the one with most in front, bare squares left out', () => {
    const { here } = bench();
    expect([...here.current.counts.all]).toEqual([1, 4, 3, 0]);
    expect(here.current.counts.colours.map((each) => each.line)).toEqual([1, 2]);
    expect(here.current.counts.colour?.line).toBe(1);
    expect(here.current.counts).toMatchObject({ leftHere: 4, allHere: 4, leftInSection: 7, allInSection: 7 });
  });

  it('is counted anew with each version of the marks, and only of this section', () => {
    const { here, laid, rerender } = bench();
    setLaid(laid, 0, true);
    setLaid(laid, 4, true);
    rerender({ wanted: 1, version: 1 });
    expect(here.current.counts).toMatchObject({ leftHere: 3, allHere: 4, leftInSection: 6, allInSection: 7 });
    rerender({ wanted: 2, version: 1 });
    expect(here.current.counts).toMatchObject({ leftHere: 3, allHere: 3 });
  });
});

describe('a large act', () => {
  it('finishes the colour in front and brings the next one', () => {
    const { here, marks, onColour, onMarked } = bench();
    act(() => here.current.acts.finish());
    expect(marks).toEqual([{ kind: 'lay', cells: [0, 1, 6, 7], more: {} }]);
    expect(onColour).toHaveBeenCalledExactlyOnceWith(2);
    expect(onMarked).toHaveBeenCalledExactlyOnceWith({ kind: 'lay', drills: 4, code: '401' });
  });

  it('stays with the last colour, and does nothing where nothing is left', () => {
    const { here, marks, onColour, rerender } = bench(right);
    act(() => here.current.acts.finish());
    expect(onColour).toHaveBeenCalledExactlyOnceWith(3);
    rerender({ wanted: 3, version: 1 });
    act(() => here.current.acts.finish());
    expect(marks).toHaveLength(1);
  });

  it('is one for a double click or a key that is held; after a moment it is another', () => {
    const now = vi.spyOn(performance, 'now').mockReturnValue(10_000);
    const { here, marks, rerender } = bench();
    act(() => here.current.acts.finish());
    rerender({ wanted: 2, version: 1 });
    now.mockReturnValue(10_599);
    act(() => here.current.acts.finish());
    act(() => here.current.acts.markWide('section', 'lay'));
    act(() => here.current.acts.setShare(0.5));
    expect(marks).toHaveLength(1);
    now.mockReturnValue(11_200);
    act(() => here.current.acts.finish());
    expect(marks.map((mark) => mark.cells)).toEqual([
      [0, 1, 6, 7],
      [2, 3, 8],
    ]);
    now.mockRestore();
  });

  it('takes the section, or lifts what is laid of the colour in front by hand', () => {
    const { here, marks, onMarked, laid } = bench();
    setLaid(laid, 1, true);
    setLaid(laid, 2, true);
    act(() => here.current.acts.markWide('colour', 'lift'));
    expect(marks).toEqual([{ kind: 'lift', cells: [1], more: { popped: false } }]);
    expect(onMarked).toHaveBeenLastCalledWith({ kind: 'lift', drills: 1, code: '401' });
    cleanup();
    const other = bench(right);
    act(() => other.here.current.acts.markWide('section', 'lay'));
    expect(other.marks).toEqual([{ kind: 'lay', cells: [4, 5, 10, 11], more: {} }]);
    expect(other.onMarked).toHaveBeenLastCalledWith({ kind: 'lay', drills: 4, code: null });
  });

  it('takes the panel on which the section lies, of several, and says what is left there', () => {
    const panels = [
      { x: 0, y: 0, width: 2, height: 2 },
      { x: 2, y: 0, width: 4, height: 2 },
    ];
    const { here, laid, marks, rerender } = bench(right, { panels });
    expect(here.current.acts.panel).toEqual({ number: 2, left: 7 });
    setLaid(laid, 2, true);
    rerender({ wanted: null, version: 1 });
    expect(here.current.acts.panel).toEqual({ number: 2, left: 6 });
    act(() => here.current.acts.markWide('panel', 'lay'));
    expect(marks[0]!.cells).toEqual([3, 4, 5, 8, 10, 11]);
    cleanup();
    expect(bench(right, { panels: [panels[1]!] }).here.current.acts.panel).toBeNull();
  });

  it('lays or lifts until a share is laid, where there is no chart', () => {
    const now = vi.spyOn(performance, 'now').mockReturnValue(10_000);
    const { here, marks } = bench(left, { hasChart: false });
    act(() => here.current.acts.setShare(1));
    expect(marks[0]).toMatchObject({ kind: 'lay' });
    expect(marks[0]!.cells).toHaveLength(7);
    now.mockReturnValue(20_000);
    act(() => here.current.acts.setShare(0));
    expect(marks[1]).toMatchObject({ kind: 'lift', more: { popped: false } });
    expect(marks[1]!.cells).toHaveLength(7);
    now.mockRestore();
  });
});

describe('sittings and what was thrown away', () => {
  const A = '00000000-0000-4000-8000-00000000000a';
  const B = '00000000-0000-4000-8000-00000000000b';
  const sitting = { id: 's1', startedAt: '2026-05-01T18:00:00.000Z', endedAt: null, note: '' };
  const trash = { thrown: 0, handled: 0 };
  const view = (more: object) =>
    ({ laid: 0, sittings: [], lastMarkAt: null, trash, trashRecords: [], ...more }) as never;
  let asked: Asked[] = [];
  let answer: Answers = () => Response.json({});
  beforeEach(() => {
    localStorage.clear();
    standInSource();
    asked = standInFetch((request) => answer(request));
  });

  it('the clock stops with the last drill, once, and not where all was laid before', async () => {
    answer = () => Response.json(view({ sittings: [{ ...sitting, endedAt: '2026-05-01T19:00:00.000Z' }] }));
    const { result, rerender } = renderHook(
      ({ allLaid }) => useBenchRecord(A, view({ sittings: [sitting] }), allLaid),
      { initialProps: { allLaid: false } },
    );
    expect(result.current.running?.id).toBe('s1');
    rerender({ allLaid: true });
    await waitFor(() => expect(result.current.running).toBeNull());
    const ends = () => asked.filter(({ url }) => url.endsWith('/end'));
    // It stands on the page before it is sent.
    await waitFor(() => expect(ends().map(({ url }) => url)).toEqual([`/api/canvases/${A}/sittings/s1/end`]));
    rerender({ allLaid: false });
    rerender({ allLaid: true });
    await act(() => new Promise((resolve) => setTimeout(resolve, 20)));
    expect(ends()).toHaveLength(1);
    cleanup();
    const other = renderHook(() => useBenchRecord(B, view({ sittings: [sitting] }), true));
    await act(() => new Promise((resolve) => setTimeout(resolve, 20)));
    expect(other.result.current.running?.id).toBe('s1');
    expect(ends()).toHaveLength(1);
  });

  it('begins and ends by hand, with a note and the time that was said', async () => {
    answer = ({ url }) =>
      Response.json(view({ sittings: url.endsWith('/end') ? [] : [sitting], lastMarkAt: sitting.startedAt }));
    const { result } = renderHook(() => useBenchRecord(A, view({}), false));
    act(() => result.current.setNote('nothing runs'));
    act(() => result.current.stop());
    act(() => result.current.start());
    await waitFor(() => expect(result.current.running?.id).toBe('s1'));
    expect(result.current.lastMarkAt).toBe(sitting.startedAt);
    act(() => result.current.setNote('tired'));
    act(() => result.current.stop('2026-05-01T18:30:00.000Z'));
    await waitFor(() => expect(result.current.running).toBeNull());
    await waitFor(() =>
      expect(asked.map(({ url }) => url.replace(/.*canvases/, ''))).toEqual([
        `/${A}/sittings`,
        `/${A}/sittings/s1/end`,
      ]),
    );
    expect(asked[1]!.body).toMatchObject({ note: 'tired', endedAt: '2026-05-01T18:30:00.000Z' });
  });

  it('begin and end while the machine is off, over a reload, each once and on its own canvas', async () => {
    answer = () => Promise.reject(new TypeError('nobody there'));
    const bench = (canvas: string) => renderHook(() => useBenchRecord(canvas, view({}), false));
    const [first, other] = [bench(A), bench(B)];
    act(() => {
      first.result.current.start();
      first.result.current.start();
    });
    await waitFor(() => expect(first.result.current.running).not.toBeNull());
    const { id, startedAt } = first.result.current.running!;
    await waitFor(() => expect(first.result.current.fault).not.toBeNull());
    first.unmount();
    const { result } = bench(A);
    await waitFor(() => expect(result.current.running).toMatchObject({ id }));
    act(() => result.current.stop());
    expect(result.current.running).toBeNull();
    expect(other.result.current.running).toBeNull();
    await act(() => new Promise((resolve) => setTimeout(resolve, 20)));
    asked.length = 0;
    answer = ({ url }) =>
      Response.json(
        view({ sittings: [{ ...sitting, id, endedAt: url.endsWith('/end') ? startedAt : null }] }),
      );
    await waitFor(() => expect(asked.some(({ url }) => url.endsWith('/end'))).toBe(true), { timeout: 8000 });
    expect(asked.filter(({ method }) => method === 'POST').map(({ url, body }) => [url, body!.id])).toEqual([
      [`/api/canvases/${A}/sittings`, id],
      [`/api/canvases/${A}/sittings/${id}/end`, expect.any(String)],
    ]);
    await act(() => new Promise((resolve) => setTimeout(resolve, 20)));
    expect(result.current.running).toBeNull();
  });

  it('are timed by the machine’s clock, however this device’s goes', async () => {
    const inAnHour = () => Date.now() + 3_600_000;
    const headers = () => ({ date: new Date(inAnHour()).toUTCString() });
    answer = () => Response.json({ detail: 'Not now.' }, { status: 409, headers: headers() });
    const { result } = renderHook(() => useBenchRecord(A, view({}), false));
    act(() => result.current.start());
    await waitFor(() => expect(result.current.fault).not.toBeNull());
    answer = () => Promise.reject(new TypeError('nobody there'));
    act(() => result.current.start());
    act(() => result.current.markedNow());
    await waitFor(() => expect(result.current.running).not.toBeNull());
    for (const moment of [result.current.running!.startedAt, result.current.lastMarkAt!])
      expect(Math.abs(Date.parse(moment) - inAnHour())).toBeLessThan(20_000);
    theMachineClock().heard(new Date().toUTCString(), Date.now());
    answer = () => Response.json(view({}));
    await waitFor(() => expect(result.current.running).toBeNull());
  });

  it('one that the server will not have runs no longer', async () => {
    answer = () => Response.json({ detail: 'Not now.' }, { status: 409 });
    const { result } = renderHook(() => useBenchRecord(A, view({}), false));
    act(() => result.current.start());
    await waitFor(() => expect(result.current.fault).toBe('Not now.'));
    expect(result.current.running).toBeNull();
    answer = () => Response.json(view({ sittings: [sitting] }));
    act(() => result.current.start());
    await waitFor(() => expect(result.current.running?.id).toBe('s1'));
  });

  it('a note goes with the end of its sitting, over a reload, with the last drill, and where another screen ends it', async () => {
    sessionStorage.clear();
    const ended = { ...sitting, endedAt: '2026-05-01T19:00:00.000Z' };
    const next = { ...sitting, id: 's2' };
    let now: object[] = [sitting];
    answer = () => Response.json(view({ sittings: now }));
    const bench = (canvas: string, allLaid = false) =>
      renderHook(({ allLaid }) => useBenchRecord(canvas, view({ sittings: [sitting] }), allLaid), {
        initialProps: { allLaid },
      });
    const settle = () => act(() => new Promise<void>((resolve) => setTimeout(resolve, SETTLE_MS)));
    const ends = () =>
      asked.filter(({ url }) => url.endsWith('/end')).map(({ url, body }) => [url.split('/')[5], body!.note]);
    const first = bench(A);
    act(() => first.result.current.setNote('sore hand'));
    cleanup();
    const { result } = bench(A);
    expect(result.current.note).toBe('sore hand');
    await settle();
    now = [next, ended];
    await say(A, 'changed', { parts: ['sittings'], by: { screen: 'elsewhere', device: 'Tablet' } });
    await settle();
    await waitFor(() => expect(ends()).toEqual([['s1', 'sore hand']]));
    // The next one begins with none.
    expect(result.current.running?.id).toBe('s2');
    expect(result.current.note).toBe('');
    await settle();
    expect(ends()).toHaveLength(1);
    cleanup();
    const other = bench(B);
    act(() => other.result.current.setNote('done at last'));
    now = [ended];
    other.rerender({ allLaid: true });
    await waitFor(() => expect(ends()).toContainEqual(['s1', 'done at last']));
    await waitFor(() => expect(other.result.current.running).toBeNull());
    await settle();
    expect(ends()).toHaveLength(2);
  });

  it('follow what another screen did on this canvas, and not on another one', async () => {
    answer = () => Response.json(view({ sittings: [sitting], trashRecords: [{ id: 't1' }] }));
    const { result } = renderHook(() => useBenchRecord(A, view({}), false));
    const settle = () => act(() => new Promise<void>((resolve) => setTimeout(resolve, SETTLE_MS)));
    await settle();
    const by = { screen: 'elsewhere', device: 'Tablet' };
    await say(B, 'changed', { parts: ['sittings'], by });
    await settle();
    expect(result.current.running).toBeNull();
    await say(A, 'changed', { parts: ['sittings'], by });
    await settle();
    await waitFor(() => expect(result.current.running?.id).toBe('s1'));
    expect(result.current.thrown.trashRecords).toEqual([{ id: 't1' }]);
  });

  it('show what was done here, though what was read before it comes later', async () => {
    const early = held();
    let reads = 0;
    answer = ({ method }) => {
      if (method === 'POST') return Response.json(view({ sittings: [sitting] }));
      return reads++ === 0 ? early.promise : Response.json(view({ sittings: [sitting] }));
    };
    const { result } = renderHook(() => useBenchRecord(A, view({}), false));
    const settle = () => act(() => new Promise<void>((resolve) => setTimeout(resolve, SETTLE_MS)));
    await settle();
    await say(A, 'changed', { parts: ['trash'], by: { screen: 'elsewhere', device: 'Tablet' } });
    await settle();
    act(() => result.current.start());
    await waitFor(() => expect(result.current.running?.id).toBe('s1'));
    early.release(Response.json(view({})));
    await settle();
    expect(result.current.running?.id).toBe('s1');
    expect(reads).toBe(2);
  });
});
