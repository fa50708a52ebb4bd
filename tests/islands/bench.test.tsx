// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, fireEvent, render, renderHook, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { USUAL_COMFORT } from '../../src/core/bench/comfort';
import { emptyBitmap, setLaid } from '../../src/core/cells/bitmap';
import { runsFromCells } from '../../src/core/cells/cellRuns';
import { USUAL_PLACING } from '../../src/core/placing/wish';
import { makeSection } from '../../src/core/sections/section';
import type { MarkStore } from '../../src/islands/bench/markStore';
import { useAwake } from '../../src/islands/bench/useAwake';
import { useBadDrills } from '../../src/islands/bench/useBadDrills';
import { type BenchActs, useBenchKeys } from '../../src/islands/bench/useBenchKeys';
import { useComfort } from '../../src/islands/bench/useComfort';
import { useGuide } from '../../src/islands/bench/useGuide';
import { usePopped } from '../../src/islands/bench/usePopped';
import { useStroke } from '../../src/islands/bench/useStroke';
import { useVoice } from '../../src/islands/bench/useVoice';
import { DayField } from '../../src/ui/DayField';
import { usePrinting } from '../../src/ui/usePrinting';
import { chartOfRows, line } from '../core/samples';
import { type Answers, type Asked, standInFetch } from './requests';
import { StandInWorker } from './standInWorker';

let asked: Asked[] = [];
let answer: Answers = () => Response.json({});
beforeEach(() => {
  localStorage.clear();
  StandInWorker.all = [];
  vi.stubGlobal('Worker', StandInWorker);
  asked = standInFetch((request) => answer(request));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  answer = () => Response.json({});
});

const chart = chartOfRows('111222', '111222');
const section = makeSection(1, [{ x: 0, y: 0, width: 6, height: 2 }]);
const legend = [line(1), line(2)];
const data = () => ({ chart, laid: emptyBitmap(12), cut: null, position: 0 });

describe('a stroke', () => {
  /** A store that notes what it is told. */
  function store() {
    const sent: { kind: string; cells: number[]; more: object }[] = [];
    const own = {
      preview: (_: string, cells: readonly number[]) => [...cells],
      commit: (kind: string, cells: readonly number[], _: string | null, more = {}) =>
        sent.push({ kind, cells: [...cells], more }),
      forget: vi.fn(),
    };
    return { sent, own: own as unknown as MarkStore, forget: own.forget };
  }
  const world = (more: object) => ({
    data: data(),
    section,
    line: 1,
    mode: 'lay' as const,
    reach: 'square' as const,
    snaps: false,
    sitting: null,
    placementAt: () => [],
    planning: false,
    onPopped: vi.fn(),
    onTouch: vi.fn(),
    ...more,
  });

  it('marks what a drag crosses, of the colour in front alone, as one mark', () => {
    const { sent, own } = store();
    const { result } = renderHook(() => useStroke(world({ store: own }) as never));
    act(() => {
      result.current.marking.begin({ x: 1, y: 0 }, false);
      result.current.marking.extend([
        { x: 2, y: 0 },
        { x: 3, y: 0 },
      ]);
      result.current.marking.end();
    });
    expect(sent).toEqual([{ kind: 'lay', cells: [1, 2], more: {} }]);
  });

  it('that is aborted leaves nothing behind', () => {
    const { sent, own, forget } = store();
    const { result } = renderHook(() => useStroke(world({ store: own }) as never));
    act(() => {
      result.current.marking.begin({ x: 1, y: 0 }, false);
      result.current.marking.abort();
      result.current.marking.end();
    });
    expect(sent).toEqual([]);
    expect(forget).toHaveBeenCalledOnce();
  });

  it('says that drills popped, and lifts no bare square for it', () => {
    const { sent, own } = store();
    const ground = data();
    setLaid(ground.laid, 7, true);
    const onPopped = vi.fn();
    const { result } = renderHook(() =>
      useStroke(world({ store: own, data: ground, mode: 'popped', onPopped }) as never),
    );
    act(() => {
      result.current.marking.begin({ x: 1, y: 1 }, false);
      result.current.marking.end();
    });
    expect(sent).toEqual([{ kind: 'lift', cells: [7], more: { popped: true } }]);
    expect(onPopped).toHaveBeenCalledWith([7]);
  });

  it('that lifts by hand says that nothing popped', () => {
    const { sent, own } = store();
    const ground = data();
    setLaid(ground.laid, 7, true);
    const { result } = renderHook(() =>
      useStroke(world({ store: own, data: ground, mode: 'lift' }) as never),
    );
    act(() => {
      result.current.marking.begin({ x: 1, y: 1 }, false);
      result.current.marking.end();
    });
    expect(sent).toEqual([{ kind: 'lift', cells: [7], more: { popped: false } }]);
  });

  it('of a bar marks nothing while the plan is not there, and the whole bar once it is', () => {
    const { sent, own } = store();
    const onTouch = vi.fn();
    const bar = { store: own, reach: 'placement', onTouch, placementAt: () => [0, 1, 2] };
    const { result, rerender } = renderHook(
      (more: object) => useStroke(world({ ...bar, ...more }) as never),
      {
        initialProps: { planning: true },
      },
    );
    const tap = () =>
      act(() => {
        result.current.marking.begin({ x: 0, y: 0 }, false);
        result.current.marking.end();
      });
    tap();
    expect(sent).toEqual([]);
    expect(onTouch).toHaveBeenLastCalledWith({ what: 'unplanned' });
    rerender({ planning: false });
    tap();
    expect(sent).toEqual([{ kind: 'lay', cells: [0, 1, 2], more: {} }]);
  });

  it('of an area takes two taps, and its corner can be forgotten', () => {
    const { sent, own } = store();
    const { result } = renderHook(() => useStroke(world({ store: own, reach: 'area' }) as never));
    const tap = (x: number, y: number) =>
      act(() => {
        result.current.marking.begin({ x, y }, false);
        result.current.marking.end();
      });
    tap(0, 0);
    expect(result.current.corner).toEqual({ x: 0, y: 0 });
    act(() => result.current.forgetCorner());
    tap(2, 0);
    tap(4, 1);
    expect(sent).toEqual([{ kind: 'lay', cells: [2, 8], more: {} }]);
    expect(result.current.corner).toBeNull();
  });

  it('of a hand that trembles finds the square beside it', () => {
    const { sent, own } = store();
    const { result } = renderHook(() => useStroke(world({ store: own, snaps: true }) as never));
    act(() => {
      result.current.marking.begin({ x: 3, y: 0 }, false);
      result.current.marking.end();
    });
    expect(sent[0]!.cells).toEqual([2]);
  });
});

describe('what is next', () => {
  const start = { tips: [], wish: USUAL_PLACING, hand: 'right' as const };
  const canvas = { canvasId: 'c1', hasChart: true, shape: 'square' as const };

  it('row by row is the rows of the colour, one after the other', () => {
    const ground = data();
    const { result } = renderHook(() =>
      useGuide(
        canvas,
        ground,
        0,
        legend,
        section,
        legend[1]!,
        start,
        { guide: 'rows', counting: false },
        false,
      ),
    );
    expect(result.current).toMatchObject({
      words: 'Row 1, from column 4: 3.',
      cells: [3, 4, 5],
      isFirst: true,
    });
    act(() => result.current.step(1));
    expect(result.current.words).toBe('Row 2, from column 4: 3.');
    act(() => result.current.step(1));
    expect(result.current.words).toBe('Row 2, from column 4: 3.');
    act(() => result.current.step(-1));
    act(() => result.current.laid());
    expect(result.current.words).toBe('Row 2, from column 4: 3.');
    // No plan is asked for that nobody follows.
    expect(StandInWorker.all[0]!.got.filter((each) => (each as { what: string }).what === 'plan')).toEqual(
      [],
    );
  });

  it('bar by bar is the plan of the colour in front, and after the last the next colour', () => {
    const ground = data();
    const { result } = renderHook(() =>
      useGuide(
        canvas,
        ground,
        0,
        legend,
        section,
        legend[0]!,
        start,
        { guide: 'placements', counting: false },
        false,
      ),
    );
    expect(result.current).toMatchObject({ planning: true, words: null });
    const worker = StandInWorker.all[0]!;
    const order = (worker.got as { what: string; id: number }[]).findLast(({ what }) => what === 'plan')!;
    const bar = (x: number, y: number, of: number) => ({
      x,
      y,
      length: 3,
      orientation: 'h',
      line: of,
      tip: 3,
    });
    worker.say({
      what: 'plan',
      id: order.id,
      plan: { placements: [bar(0, 0, 1), bar(0, 1, 1), bar(3, 0, 2)] },
    });
    expect(result.current).toMatchObject({ cells: [0, 1, 2], turn: 'Placement 1 of 2', after: { line: 1 } });
    expect(result.current.placementAt({ x: 4, y: 0 })).toEqual([3, 4, 5]);
    act(() => result.current.laid());
    expect(result.current).toMatchObject({ cells: [6, 7, 8], after: { line: 2 } });
  });
});

describe('what belongs to the device', () => {
  it('is kept, and marks the page for eyes that need contrast', () => {
    const first = renderHook(() => useComfort());
    act(() => first.result.current.change({ contrast: 'high', slip: 'left' }));
    expect(document.documentElement.hasAttribute('data-contrast')).toBe(true);
    first.unmount();
    expect(document.documentElement.hasAttribute('data-contrast')).toBe(false);
    const { result } = renderHook(() => useComfort());
    expect(result.current.comfort).toEqual({ ...USUAL_COMFORT, contrast: 'high', slip: 'left' });
  });

  it('keeps the screen on while that is wanted, and lets go after', async () => {
    const release = vi.fn(async () => {});
    const request = vi.fn(async () => ({ release }));
    vi.stubGlobal('navigator', { ...navigator, wakeLock: { request } });
    const { rerender } = renderHook(({ on }) => useAwake(on), { initialProps: { on: false } });
    expect(request).not.toHaveBeenCalled();
    rerender({ on: true });
    await waitFor(() => expect(request).toHaveBeenCalledWith('screen'));
    await act(async () => {});
    rerender({ on: false });
    expect(release).toHaveBeenCalledOnce();
  });

  it('speaks when what is next changes, is still while paused, and says it again', () => {
    const speak = vi.fn();
    vi.stubGlobal('speechSynthesis', { speak, cancel: vi.fn() });
    vi.stubGlobal(
      'SpeechSynthesisUtterance',
      class {
        constructor(readonly text: string) {}
      },
    );
    vi.stubGlobal(
      'Audio',
      class {
        loop = false;
        play = async () => {};
        pause = () => {};
      },
    );
    const said = () => speak.mock.calls.map(([{ text, rate }]) => `${text} ${rate}`);
    const { result, rerender } = renderHook(({ words, pace }) => useVoice(true, words, pace, () => {}), {
      initialProps: { words: 'one', pace: 'usual' as 'usual' | 'quick' },
    });
    rerender({ words: 'two', pace: 'usual' });
    act(() => result.current.toggle());
    rerender({ words: 'three', pace: 'usual' });
    expect(said()).toEqual(['one 1', 'two 1']);
    act(() => result.current.toggle());
    rerender({ words: 'three', pace: 'quick' });
    act(() => result.current.again());
    expect(said()).toEqual(['one 1', 'two 1', 'three 1', 'three 1.4', 'three 1.4']);
  });
});

describe('what the ledgers tell beside the marks', () => {
  it('are popped drills, without those that are laid since', async () => {
    answer = () => Response.json({ drills: 3, runs: runsFromCells([1, 2, 7]) });
    const laid = emptyBitmap(12);
    setLaid(laid, 2, true);
    const { result, rerender } = renderHook(
      ({ version }) => usePopped('6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f01', laid, version),
      { initialProps: { version: 0 } },
    );
    await waitFor(() => expect(result.current.popped).toEqual([1, 7]));
    act(() => result.current.add([9]));
    expect(result.current.popped).toEqual([1, 7, 9]);
    setLaid(laid, 7, true);
    rerender({ version: 1 });
    expect(result.current.popped).toEqual([1, 9]);
  });

  it('are bad drills in one record that is corrected with each of them', async () => {
    const got: object[] = [];
    const { result, rerender } = renderHook(
      ({ laid }) => useBadDrills('c1', laid, (view) => got.push(view)),
      { initialProps: { laid: 100 } },
    );
    rerender({ laid: 340 });
    act(() => result.current.count(1));
    await waitFor(() => expect(asked).toHaveLength(1));
    act(() => result.current.count(1));
    await waitFor(() => expect(asked).toHaveLength(2));
    expect(asked[0]!.body).toMatchObject({ handled: 241, thrown: 1 });
    expect(asked[1]!.body).toMatchObject({ handled: 242, thrown: 2, replaces: asked[0]!.body!.id });
    act(() => result.current.count(-1));
    act(() => result.current.count(-1));
    await waitFor(() => expect(asked).toHaveLength(4));
    expect(asked[3]!.body).toMatchObject({ thrown: 0, removed: true });
    act(() => result.current.count(-1));
    expect(result.current.thrown).toBe(0);
  });

  it('are counted on in another record where somebody corrected the first one meanwhile', async () => {
    const { result, rerender } = renderHook(({ laid }) => useBadDrills('c1', laid, () => {}), {
      initialProps: { laid: 100 },
    });
    act(() => result.current.count(1));
    await waitFor(() => expect(asked).toHaveLength(1));
    const first = asked[0]!.body!.id;
    answer = ({ body }) =>
      body!.replaces === first
        ? Response.json({ detail: 'This record was corrected meanwhile.' }, { status: 409 })
        : Response.json({});
    rerender({ laid: 140 });
    act(() => result.current.count(1));
    await waitFor(() => expect(asked).toHaveLength(3));
    expect(asked[1]!.body).toMatchObject({ handled: 42, thrown: 2, replaces: first });
    // Nothing is lost, and the corrected record stays as it is.
    expect(asked[2]!.body).toMatchObject({ handled: 1, thrown: 1 });
    expect(asked[2]!.body).not.toHaveProperty('replaces');
    await waitFor(() => expect([result.current.thrown, result.current.fault]).toEqual([1, null]));
    rerender({ laid: 150 });
    act(() => result.current.count(1));
    await waitFor(() => expect(asked).toHaveLength(4));
    expect(asked[3]!.body).toMatchObject({ handled: 12, thrown: 2, replaces: asked[2]!.body!.id });
  });
});

describe('the keys of the bench', () => {
  const acts = (more: object = {}) =>
    ({
      ...{
        hasChart: true,
        speaks: false,
        touch: vi.fn(),
        layNext: vi.fn(),
        stepBack: vi.fn(),
        finish: vi.fn(),
      },
      ...{
        lift: vi.fn(),
        popped: vi.fn(),
        reach: vi.fn(),
        colour: vi.fn(),
        timer: vi.fn(),
        badDrill: vi.fn(),
      },
      ...{
        speak: vi.fn(),
        again: vi.fn(),
        pause: vi.fn(),
        pace: vi.fn(),
        crossHair: vi.fn(),
        count: vi.fn(),
      },
      ...more,
    }) as BenchActs;
  const keysOf = (own: BenchActs) => renderHook(() => useBenchKeys(own)).result.current;

  it('act once, however long they are held', () => {
    const own = acts();
    const onKey = keysOf(own);
    for (const key of ['PageDown', 'A', 'x', ' ']) {
      expect(onKey({ key, repeat: false })).toBe(true);
      expect(onKey({ key, repeat: true })).toBe(true);
    }
    for (const act of [own.layNext, own.finish, own.badDrill, own.touch]) expect(act).toHaveBeenCalledOnce();
    expect(onKey({ key: 'q', repeat: false })).toBe(false);
  });

  it('of the plan are none where there is no chart', () => {
    const own = acts({ hasChart: false });
    expect(keysOf(own)({ key: 'Enter', repeat: false })).toBe(false);
    expect(own.layNext).not.toHaveBeenCalled();
  });

  it('the space bar pauses the voice, and held down changes its speed', () => {
    vi.useFakeTimers();
    const own = acts({ speaks: true });
    const onKey = keysOf(own);
    onKey({ key: ' ', repeat: false });
    window.dispatchEvent(new KeyboardEvent('keyup', { key: ' ' }));
    vi.advanceTimersByTime(1000);
    expect([own.pause, own.pace].map((act) => (act as ReturnType<typeof vi.fn>).mock.calls.length)).toEqual([
      1, 0,
    ]);
    onKey({ key: ' ', repeat: false });
    vi.advanceTimersByTime(1000);
    expect(own.pace).toHaveBeenCalledOnce();
    vi.useRealTimers();
  });
});

describe('a day that is typed', () => {
  const type = (text: string) =>
    fireEvent.change(screen.getByLabelText('Done by'), { target: { value: text } });

  it('counts once its year is whole, after a moment or when the field is left', () => {
    vi.useFakeTimers();
    const days: (string | null)[] = [];
    render(<DayField words="Done by" value="2026-05-01" onChange={(day) => days.push(day)} />);
    // As a browser tells it while the year 2027 is typed figure by figure.
    for (const year of ['0002', '0020', '0202', '2027']) type(`${year}-05-01`);
    expect(days).toEqual([]);
    vi.advanceTimersByTime(1000);
    expect(days).toEqual(['2027-05-01']);
    type('0003-05-01');
    fireEvent.blur(screen.getByLabelText('Done by'));
    expect(days).toHaveLength(1);
    type('');
    vi.advanceTimersByTime(1000);
    expect(days).toHaveLength(1);
    fireEvent.blur(screen.getByLabelText('Done by'));
    expect(days).toEqual(['2027-05-01', null]);
    vi.useRealTimers();
  });

  it('that is left half typed, or in a year that cannot be, is again the one that was', () => {
    const onChange = vi.fn();
    render(<DayField words="Done by" value="2026-05-01" onChange={onChange} />);
    const input = screen.getByLabelText<HTMLInputElement>('Done by');
    type('0026-05-01');
    fireEvent.blur(input);
    expect(input.value).toBe('2026-05-01');
    // A browser gives no text for a day of which the month was erased, and says that it is no empty field (HTML: badInput).
    Object.defineProperty(input, 'validity', { value: { badInput: true } });
    type('');
    fireEvent.blur(input);
    expect(input.value).toBe('2026-05-01');
    type('');
    fireEvent.keyDown(input, { key: 'Enter' });
    expect(input.value).toBe('2026-05-01');
    expect(onChange).not.toHaveBeenCalled();
  });
});

describe('a page on its way to paper', () => {
  it('knows it, and when it is over', () => {
    const { result } = renderHook(() => usePrinting());
    act(() => void window.dispatchEvent(new Event('beforeprint')));
    expect(result.current).toBe(true);
    act(() => void window.dispatchEvent(new Event('afterprint')));
    expect(result.current).toBe(false);
  });
});
