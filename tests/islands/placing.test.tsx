// @vitest-environment happy-dom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyBitmap, setLaid } from '../../src/core/cells/bitmap';
import { wholeRect } from '../../src/core/cells/rect';
import { USUAL_SECONDS } from '../../src/core/pace/timeModel';
import type { Placement } from '../../src/core/placing/placement';
import { SWITCH_NAMES } from '../../src/core/placing/prices';
import { type StepPlace, stepIn } from '../../src/core/placing/stepping';
import { USUAL_PLACING } from '../../src/core/placing/wish';
import { dismissedHints, keepDismissed } from '../../src/islands/placing/dismissedHints';
import { useBarInHand } from '../../src/islands/placing/useBarInHand';
import { usePlacingWork } from '../../src/islands/placing/usePlacingWork';
import { TOO_SOON_MS } from '../../src/ui/useTooSoon';
import type { PlacingAnswer, PlacingOrder } from '../../src/workers/placing';
import { chartOfRows, line } from '../core/samples';
import { StandInWorker } from './standInWorker';

const chart = chartOfRows('111222', '111222');
const legend = [line(1), line(2)];
const section = wholeRect(chart);

beforeEach(() => {
  StandInWorker.all = [];
  vi.stubGlobal('Worker', StandInWorker);
  localStorage.clear();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('planning in a thread', () => {
  const options = {
    tips: [1, 3],
    seconds: USUAL_SECONDS,
    hand: 'right' as const,
    wish: USUAL_PLACING,
    prices: true,
  };
  const data = { chart, laid: emptyBitmap(12), cut: null, position: 0 };
  beforeEach(() => data.laid.fill(0));
  const use = () =>
    renderHook(
      ({ version, more }) => usePlacingWork(data, version, legend, section, { ...options, ...more }),
      { initialProps: { version: 0, more: {} as Partial<typeof options> } },
    );
  const orders = (what: PlacingOrder['what']) =>
    (StandInWorker.all[0]!.got as PlacingOrder[]).filter((each) => each.what === what) as { id: number }[];

  it('sends the ground before the plan, and plans anew after a mark with the same ground', () => {
    const { rerender } = use();
    const { got } = StandInWorker.all[0]!;
    expect((got as PlacingOrder[]).map(({ what }) => what)).toEqual(['ground', 'plan']);
    setLaid(data.laid, 0, true);
    rerender({ version: 1, more: {} });
    expect((got as PlacingOrder[]).map(({ what }) => what)).toEqual(['ground', 'plan', 'plan']);
    rerender({ version: 1, more: { tips: [1, 6] } });
    expect((got as PlacingOrder[]).map(({ what }) => what).slice(3)).toEqual(['ground', 'plan']);
  });

  it('shows the answer to the newest question alone, with prices as they come', () => {
    const { result, rerender } = use();
    setLaid(data.laid, 0, true);
    rerender({ version: 1, more: {} });
    const [old, now] = orders('plan');
    const [worker] = StandInWorker.all;
    worker!.say({ what: 'plan', id: old!.id, plan: 'old' });
    expect(result.current.plan).toBeNull();
    worker!.say({ what: 'plan', id: now!.id, plan: 'now' });
    worker!.say({ what: 'price', id: now!.id, name: 'one', price: { placements: 2, seconds: 3 } });
    worker!.say({ what: 'price', id: old!.id, name: 'longest', price: { placements: 9, seconds: 9 } });
    expect(result.current.plan).toBe('now');
    expect(result.current.prices).toEqual({ one: { placements: 2, seconds: 3 } });
    // The old plan stays in sight until the new one is there; its prices do not.
    setLaid(data.laid, 1, true);
    rerender({ version: 2, more: {} });
    expect([result.current.plan, result.current.prices]).toEqual(['now', {}]);
  });

  it('leaves the plan as it is when another section is worked at', () => {
    const part = { x: 0, y: 0, width: 3, height: 2 };
    const { rerender } = renderHook(({ version }) => usePlacingWork(data, version, legend, part, options), {
      initialProps: { version: 0 },
    });
    setLaid(data.laid, 4, true);
    rerender({ version: 1 });
    expect(orders('plan')).toHaveLength(1);
    setLaid(data.laid, 2, true);
    rerender({ version: 2 });
    expect(orders('plan')).toHaveLength(2);
  });

  it('of another section has no plan until its own is there', () => {
    const { result, rerender } = renderHook(({ part }) => usePlacingWork(data, 0, legend, part, options), {
      initialProps: { part: section },
    });
    const [worker] = StandInWorker.all;
    worker!.say({ what: 'plan', id: orders('plan').at(-1)!.id, plan: 'first' });
    expect(result.current.plan).toBe('first');
    rerender({ part: { x: 0, y: 0, width: 3, height: 2 } });
    expect(result.current.plan).toBeNull();
    worker!.say({ what: 'plan', id: orders('plan').at(-1)!.id, plan: 'second' });
    expect(result.current.plan).toBe('second');
  });

  it('compares tips, and searches a whole canvas until it is stopped with the best so far', () => {
    const { result } = use();
    const [worker] = StandInWorker.all;
    act(() => result.current.compareTips([section]));
    expect(result.current.comparing).toBe(true);
    worker!.say({ what: 'tips', id: orders('tips')[0]!.id, worth: [1], done: false });
    expect(result.current).toMatchObject({ worth: [1], comparing: true });
    worker!.say({ what: 'tips', id: orders('tips')[0]!.id, worth: [1, 2], done: true });
    expect(result.current).toMatchObject({ worth: [1, 2], comparing: false });
    act(() => result.current.searchWhole([section]));
    const [{ id }] = orders('whole') as [{ id: number }];
    worker!.say({ what: 'whole', id, cost: 9, bound: 7, seconds: 1.5, done: false });
    expect(result.current.whole).toEqual({ placements: 9, bound: 7, seconds: 1.5, running: true });
    act(() => result.current.stopWhole());
    expect(orders('stop')).toHaveLength(1);
    worker!.say({ what: 'whole', id, cost: 8, bound: 8, seconds: 2, done: true });
    expect(result.current.whole).toEqual({ placements: 9, bound: 7, seconds: 1.5, running: false });
  });

  it('says so when the thread breaks, and ends it with the page', () => {
    const { result, unmount } = use();
    act(() => StandInWorker.all[0]!.onerror?.());
    expect(result.current.fault).toMatch(/could not be planned/);
    unmount();
    expect(StandInWorker.all[0]!.ended).toBe(true);
  });
});

describe('the thread itself', () => {
  async function thread() {
    const answers: PlacingAnswer[] = [];
    let take: (event: { data: PlacingOrder }) => void = () => {};
    vi.stubGlobal('postMessage', (answer: PlacingAnswer) => answers.push(answer));
    vi.stubGlobal('addEventListener', (_: string, listener: typeof take) => {
      take = listener;
    });
    vi.resetModules();
    await import('../../src/workers/placing');
    const order = (data: PlacingOrder) => take({ data });
    order({
      what: 'ground',
      ground: { chart, legend, tips: [1, 3], seconds: USUAL_SECONDS, hand: 'right' },
    });
    return { answers, order };
  }
  const laid = emptyBitmap(12);
  const plan = (id: number, more: Partial<PlacingOrder & { what: 'plan' }> = {}): PlacingOrder => ({
    what: 'plan',
    id,
    laid,
    section,
    wish: USUAL_PLACING,
    prices: false,
    ...more,
  });

  it('plans, and prices every wish', async () => {
    const { answers, order } = await thread();
    order(plan(1, { prices: true }));
    expect(answers[0]).toMatchObject({ what: 'plan', id: 1 });
    await vi.waitFor(() => expect(answers).toHaveLength(2 + SWITCH_NAMES.length));
    expect(answers[1]).toMatchObject({ what: 'plan', id: 1, plan: { lowerBound: 4 } });
    expect(answers.slice(2).every((each) => each.what === 'price' && each.id === 1)).toBe(true);
  });

  it('leaves prices of a plan that is not the newest', async () => {
    const { answers, order } = await thread();
    order(plan(1, { prices: true }));
    const some = emptyBitmap(12);
    setLaid(some, 0, true);
    order(plan(2, { laid: some }));
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(answers.map((each) => [each.what, each.id])).toEqual([
      ['plan', 1],
      ['plan', 2],
      ['plan', 2],
    ]);
  });

  it('searches a whole canvas to the end, or until it is stopped', async () => {
    const { answers, order } = await thread();
    order({ what: 'whole', id: 1, laid, pieces: [section] });
    await vi.waitFor(() =>
      expect(answers.at(-1)).toMatchObject({ what: 'whole', cost: 4, bound: 4, done: true }),
    );
    const before = answers.length;
    order({ what: 'whole', id: 2, laid, pieces: [section] });
    order({ what: 'stop' });
    await new Promise((resolve) => setTimeout(resolve, 30));
    expect(answers.slice(before)).toEqual([expect.objectContaining({ id: 2, done: false })]);
  });

  it('compares tips one after the other', async () => {
    const { answers, order } = await thread();
    order({ what: 'tips', id: 1, laid, pieces: [section] });
    await vi.waitFor(() => expect(answers.at(-1)).toMatchObject({ what: 'tips', done: true }));
    expect(answers).toHaveLength(15);
  });
});

describe('hidden hints', () => {
  it('are kept on this device, and a broken store hides none', () => {
    expect(dismissedHints()).toEqual([]);
    keepDismissed(['load']);
    expect(dismissedHints()).toEqual(['load']);
    localStorage.setItem('oculent-hidden-hints', '{broken');
    expect(dismissedHints()).toEqual([]);
    localStorage.setItem('oculent-hidden-hints', '[1, "worn"]');
    expect(dismissedHints()).toEqual(['worn']);
  });
});

describe('the bar in hand', () => {
  const bar = (x: number, y: number, length: number, orientation: 'h' | 'v', of = 1): Placement => ({
    ...{ x, y, length, orientation, line: of, tip: 3 },
  });
  const rows = [bar(0, 0, 3, 'h'), bar(0, 1, 3, 'h'), bar(3, 0, 3, 'h', 2), bar(3, 1, 3, 'h', 2)];
  const columns = [bar(0, 0, 2, 'v'), bar(1, 0, 2, 'v'), bar(2, 0, 2, 'v'), ...rows.slice(2)];
  let now = 0;
  beforeEach(() => {
    now = 10_000;
    vi.spyOn(performance, 'now').mockImplementation(() => now);
  });
  afterEach(() => void vi.restoreAllMocks());
  const look = () => {
    now += TOO_SOON_MS + 1;
  };
  function stepping() {
    const data = { chart, laid: emptyBitmap(12) };
    const first = { placements: rows as Placement[] | null, at: null as StepPlace, by: 'usual' };
    const hook = renderHook(
      ({ placements, at, by }) =>
        useBarInHand(data, placements, { at, line: 1, tips: [1, 2, 3], by }, (all) =>
          all.length === 0 ? -1 : stepIn(all, at, 1, 6),
        ),
      { initialProps: first },
    );
    return { data, first, hook, inHand: () => hook.result.current.inHand };
  }

  it('stays while somebody lays it, though the plan is made anew, until it is laid', () => {
    const { first, hook, inHand } = stepping();
    expect(inHand()).toBe(rows[0]);
    // What was planned quickly gives way before anybody has looked at it.
    hook.rerender({ ...first, placements: columns });
    expect(inHand()).toBe(columns[0]);
    look();
    hook.rerender({ ...first, placements: rows });
    expect(inHand()).toBe(columns[0]);
    const { placements, step } = hook.result.current;
    expect(placements[step]).toBe(columns[0]);
    expect(placements.filter(({ line }) => line === 1).map(({ x, y, length }) => [x, y, length])).toEqual([
      [0, 0, 2],
      [1, 0, 2],
      [1, 1, 2],
    ]);
    hook.result.current.release();
    hook.rerender({ ...first, placements: rows, at: { passed: new Set([0, 6]) } });
    expect(inHand()).not.toBe(columns[0]);
    expect(hook.result.current.wasTaken()).toBe(false);
  });

  it('that another hand laid is told for a moment, in which nothing is meant for the next one', () => {
    const { data, first, hook, inHand } = stepping();
    look();
    for (const cell of [0, 1, 2]) setLaid(data.laid, cell, true);
    hook.rerender({ ...first, placements: rows.slice(1) });
    expect(inHand()).toBe(rows[1]);
    expect(hook.result.current.wasTaken()).toBe(true);
    look();
    expect(hook.result.current.wasTaken()).toBe(false);
  });

  it('is another one by other tips or wishes, once they are planned, and none without a plan', () => {
    const { first, hook, inHand } = stepping();
    look();
    hook.rerender({ ...first, by: 'columns' });
    expect(inHand()).toBe(rows[0]);
    hook.rerender({ ...first, by: 'columns', placements: columns });
    expect(inHand()).toBe(columns[0]);
    hook.rerender({ ...first, by: 'columns', placements: null });
    expect([inHand(), hook.result.current.step]).toEqual([null, -1]);
  });
});
