// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { asCanvas } from '../../src/core/canvas/canvas';
import { emptyBitmap } from '../../src/core/cells/bitmap';
import { plainCloth } from '../../src/core/cells/chart';
import { EFFORTS } from '../../src/core/pace/effort';
import { USUAL_MODEL } from '../../src/core/pace/timeModel';
import { USUAL_ORDER } from '../../src/core/sections/order';
import { sectionsOfPlan } from '../../src/core/sections/plan';
import { USUAL_WISH } from '../../src/core/sections/wish';
import { useSectionStation } from '../../src/islands/sections/useSectionStation';
import { useSectionWork, useTimeModel } from '../../src/islands/sections/useSectionWork';
import type { ShelfEntry } from '../../src/server/shelf/contract';
import type { SectionTask } from '../../src/workers/sections';
import { line } from '../core/samples';
import { type Answers, type Asked, held, standInFetch } from './requests';
import { StandInWorker } from './standInWorker';

let asked: Asked[] = [];
let answer: Answers = () => Response.json({});
beforeEach(() => {
  StandInWorker.all = [];
  vi.stubGlobal('Worker', StandInWorker);
  asked = standInFetch((request) => answer(request));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const model = {
  efforts: EFFORTS.map((kind) => ({ kind, seconds: 7, usual: 5, spread: 1 })),
  covariance: USUAL_MODEL.covariance,
  spread: 0.2,
  sittings: 12,
  foretold: [],
  inBand: 0,
  meanError: null,
};

describe('work in a thread', () => {
  const task = (n: number) => ({ what: 'judge', n }) as unknown as SectionTask;

  it('tells how far it is, hands on what comes, and ends its thread', () => {
    const one = task(1);
    const { result } = renderHook(() => useSectionWork(one));
    const [worker] = StandInWorker.all;
    expect(result.current.done).toBe(0);
    worker!.say({ done: 0.4 });
    expect(result.current.done).toBe(0.4);
    worker!.say({ orders: [] });
    expect(result.current).toMatchObject({ done: null, result: { orders: [] }, fault: null });
    expect(worker!.ended).toBe(true);
  });

  it('of a newer task ends the one before, whose answer is not waited for', () => {
    const { result, rerender } = renderHook(({ now }) => useSectionWork(now), {
      initialProps: { now: task(1) },
    });
    rerender({ now: task(2) });
    const [first, second] = StandInWorker.all;
    expect(first!.ended).toBe(true);
    second!.say({ fault: 'Too many corners.' });
    expect(result.current).toMatchObject({ fault: 'Too many corners.', result: null, done: null });
  });

  it('can be cancelled, and says so when it breaks', () => {
    const one = task(1);
    const { result } = renderHook(() => useSectionWork(one));
    act(() => result.current.cancel());
    expect(StandInWorker.all[0]!.ended).toBe(true);
    expect(result.current.done).toBeNull();
    const two = task(2);
    const other = renderHook(() => useSectionWork(two));
    act(() => StandInWorker.all[1]!.onerror?.());
    expect(other.result.current.fault).toMatch(/could not be reckoned/);
  });
});

describe('the time model of a page', () => {
  it('is the usual one until it is here, and stays so where it cannot be had', async () => {
    answer = () => Response.json(model);
    const { result } = renderHook(() => useTimeModel('c1'));
    expect([result.current.ready, result.current.model]).toEqual([false, USUAL_MODEL]);
    await waitFor(() => expect(result.current.ready).toBe(true));
    expect(result.current.model.seconds.colours).toBe(7);
    expect(result.current.view!.sittings).toBe(12);
    // Nothing is learnt yet: what was reckoned with the usual times is not reckoned again.
    const usual = EFFORTS.map((kind) => ({ ...model.efforts[0]!, kind, seconds: USUAL_MODEL.seconds[kind] }));
    answer = () => Response.json({ ...model, efforts: usual });
    const fresh = renderHook(() => useTimeModel('c3'));
    await waitFor(() => expect(fresh.result.current.ready).toBe(true));
    expect(fresh.result.current.model.seconds).toBe(USUAL_MODEL.seconds);
    answer = () => Response.json({ detail: 'No.' }, { status: 500 });
    const other = renderHook(() => useTimeModel('c2'));
    await waitFor(() => expect(other.result.current.ready).toBe(true));
    expect([other.result.current.model, other.result.current.view]).toEqual([USUAL_MODEL, null]);
  });
});

describe('the cut of a canvas on its pages', () => {
  const canvas = asCanvas({
    id: 'c1',
    title: 'T',
    shape: 'square',
    pitchMm: 2.5,
    width: 20,
    height: 10,
    panels: 1,
    symbolsPrinted: true,
    packetDrills: 200,
    bagsCarry: null,
  });
  const entry = { canvas, hasChart: true } as ShelfEntry;
  const plan = { block: { columns: 10, rows: 10 }, pieces: null, order: USUAL_ORDER };
  const none = { undo: null, redo: null };
  const first = { plan, wish: USUAL_WISH, history: none };
  const data = { chart: plainCloth(20, 10), laid: emptyBitmap(200), cut: null, position: 0 };
  const props = { entry, legend: [line(1)], first, tips: [1] };
  const kept = {
    plan: { ...plan, block: { columns: 5, rows: 10 } },
    wish: USUAL_WISH,
    sections: [],
    history: { undo: { id: 'a', sections: 4, way: 'rows', own: true }, redo: null },
  };

  it('is judged once the time model is here, kept with an id of its own, and undone by the server’s history', async () => {
    answer = ({ url, method }) =>
      url.endsWith('/time-model')
        ? Response.json(model)
        : Response.json(method === 'PUT' ? kept : { ...kept, plan, history: none });
    const { result } = renderHook(() => useSectionStation(props, data));
    expect(StandInWorker.all).toHaveLength(0);
    await waitFor(() => expect(result.current.ready).toBe(true));
    const sections = sectionsOfPlan(canvas, plan);
    const worker = StandInWorker.all.at(-1)!;
    expect(worker.got[0]).toMatchObject({ what: 'judge', plan, wish: USUAL_WISH });
    expect((worker.got[0] as SectionTask).ground.model.seconds.singles).toBe(7);
    worker.say({ judged: { plan, sections: sections.map((section) => ({ section })) } });
    expect(result.current.judged).toHaveLength(2);
    await act(async () => {
      expect(await result.current.keep({ pieces: '0,0,20,10' })).toBe(true);
    });
    const put = asked.find(({ method }) => method === 'PUT')!;
    expect(put.body).toMatchObject({ pieces: '0,0,20,10', id: expect.stringMatching(/^[0-9a-f-]{36}$/) });
    expect(result.current.plan.block).toEqual({ columns: 5, rows: 10 });
    // What was reckoned for two sections is not shown for four.
    expect(result.current.judged).toBeNull();
    act(() => result.current.undo('a'));
    await waitFor(() => expect(asked.at(-1)!.body).toMatchObject({ undoes: 'a' }));
  });

  it('is taken from what was loaded where it is too long for the page', async () => {
    answer = ({ url }) =>
      url.endsWith('/time-model') ? Response.json(model) : Response.json({ ...kept, plan, history: none });
    const long = { ...props, first: { ...first, plan: null } };
    const { result } = renderHook(() => useSectionStation(long, { ...data, cut: plan }));
    expect(result.current.plan).toEqual(plan);
    expect(result.current.tallies).toHaveLength(2);
  });

  it('shows what undo answered, though what was read before it comes later, and judges no plan twice', async () => {
    const early = held();
    let reads = 0;
    answer = ({ url, method }) => {
      if (url.endsWith('/time-model')) return Response.json(model);
      if (method === 'PUT') return Response.json(kept);
      return reads++ === 0 ? early.promise : Response.json({ ...kept, sections: undefined });
    };
    const { result } = renderHook(() => useSectionStation(props, data));
    await waitFor(() => expect(result.current.ready).toBe(true));
    act(() => result.current.undo('a'));
    await waitFor(() => expect(result.current.plan.block).toEqual({ columns: 5, rows: 10 }));
    early.release(Response.json({ plan, wish: USUAL_WISH, history: none }));
    await waitFor(() => expect(reads).toBe(2));
    await act(() => new Promise((resolve) => setTimeout(resolve, 20)));
    expect(result.current.plan.block).toEqual({ columns: 5, rows: 10 });
    expect(result.current.history.undo?.id).toBe('a');
    const judgedPlans = StandInWorker.all.map(({ got }) => (got[0] as { plan: unknown }).plan);
    expect(judgedPlans).toEqual([plan, kept.plan]);
  });

  it('keeps how the user works, shown at once', async () => {
    answer = ({ url }) =>
      url.endsWith('/time-model') ? Response.json(model) : Response.json({ ...kept, plan, history: none });
    const { result } = renderHook(() => useSectionStation(props, data));
    act(() => result.current.changeWish({ ...USUAL_WISH, hand: 'left' }));
    expect(result.current.wish.hand).toBe('left');
    await waitFor(() =>
      expect(asked.some(({ url, method }) => method === 'PUT' && url.endsWith('/section-wish'))).toBe(true),
    );
  });
});
