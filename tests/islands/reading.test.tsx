// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, fireEvent, render, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { DoubtfulSquares } from '../../src/islands/reading/DoubtfulSquares';
import { ReadingThreads, Stopped } from '../../src/islands/reading/threads';
import { useAnswers } from '../../src/islands/reading/useAnswers';
import { useWrite, WAITS } from '../../src/islands/writing/useWrite';
import type { ReadingView } from '../../src/server/reading/contract';
import { TOO_SOON_MS } from '../../src/ui/useTooSoon';
import { line, sampleCanvas } from '../core/samples';
import { type Answers, type Asked, standInFetch } from './requests';
import { StandInWorker } from './standInWorker';

let asked: Asked[] = [];
let answer: Answers = () => Response.json({});
beforeEach(() => {
  StandInWorker.all = [];
  asked = standInFetch((request) => answer(request));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const corners = [
  [0, 0],
  [9, 0],
  [9, 9],
  [0, 9],
] as const;
const count = (photo: string) => ({ what: 'count' as const, photo, corners });
const make = () => new StandInWorker() as unknown as Worker;

describe('threads that read', () => {
  it('work on a few photos at once, the others wait, and each gets its own answer', async () => {
    const threads = new ReadingThreads(2, make);
    const shares: number[] = [];
    const first = threads.ask<'count'>(count('a'), (share) => shares.push(share));
    const second = threads.ask<'count'>(count('b'));
    const third = threads.ask<'count'>(count('c'));
    const [one, two] = StandInWorker.all;
    expect(StandInWorker.all).toHaveLength(2);
    expect(one!.got).toMatchObject([{ photo: 'a' }]);
    one!.say({ id: 1, what: 'progress', share: 0.5 });
    // An answer to an order that is over says nothing.
    one!.say({ id: 99, what: 'count', count: null });
    two!.say({ id: 2, what: 'fault', words: 'Too small.' });
    await expect(second).rejects.toThrow('Too small.');
    expect(two!.got).toMatchObject([{ photo: 'b' }, { photo: 'c' }]);
    one!.say({ id: 1, what: 'count', count: { columns: 3, rows: 2, sure: 1 } });
    expect((await first).count).toEqual({ columns: 3, rows: 2, sure: 1 });
    two!.say({ id: 3, what: 'count', count: null });
    expect((await third).count).toBeNull();
    expect(shares).toEqual([0.5]);
    expect(StandInWorker.all).toHaveLength(2);
  });

  it('end when they are stopped, and begin anew', async () => {
    const threads = new ReadingThreads(1, make);
    const running = threads.ask<'count'>(count('a'));
    const waiting = threads.ask<'count'>(count('b'));
    threads.stop();
    await expect(running).rejects.toBeInstanceOf(Stopped);
    await expect(waiting).rejects.toBeInstanceOf(Stopped);
    expect(StandInWorker.all[0]!.ended).toBe(true);
    const again = threads.ask<'count'>(count('c'));
    StandInWorker.all[1]!.say({ id: 2, what: 'count', count: null });
    expect((await again).count).toBeNull();
  });

  it('that break down say so, and the next photo gets a new one', async () => {
    const threads = new ReadingThreads(1, make);
    const broken = threads.ask<'count'>(count('a'));
    const next = threads.ask<'count'>(count('b'));
    StandInWorker.all[0]!.onerror!();
    await expect(broken).rejects.toThrow('could not be read');
    StandInWorker.all[1]!.say({ id: 2, what: 'count', count: null });
    expect((await next).count).toBeNull();
  });
});

describe('answers', () => {
  const first: ReadingView = { photos: [], samples: [], answers: [[4, 2]], undo: null, accepted: null };
  const use = () => {
    let view = first;
    const hook = renderHook(() => {
      const writing = useWrite('c1');
      return {
        ...useAnswers(view, (next) => (view = next), writing, '/api/canvases/c1/reading', 20),
        writing,
      };
    });
    return { ...hook, seen: () => view };
  };

  it('count at once, one entry a key, and are dropped where they are refused', async () => {
    answer = () =>
      Response.json({
        answers: [
          [4, 2],
          [7, 1],
        ],
        undo: { id: 'u1', squares: 1, own: true },
      });
    const { result, rerender, seen } = use();
    act(() => result.current.answer([7], 1));
    expect(result.current.answers.get(7)).toBe(1);
    expect(result.current.undo).toBeNull();
    await waitFor(() => expect(seen().undo?.id).toBe('u1'));
    rerender();
    await waitFor(() => expect(result.current.undo).not.toBeNull());
    expect(asked.filter(({ url }) => url.endsWith('/answers'))[0]!.body).toMatchObject({ answers: [[7, 1]] });
    answer = () => Response.json({ detail: 'A colour is gone.' }, { status: 422 });
    act(() => result.current.answer([8, 9], 5));
    expect(result.current.answers.get(9)).toBe(5);
    await waitFor(() => expect(result.current.answers.has(9)).toBe(false));
    expect(result.current.writing.fault).toBe('A colour is gone.');
    expect([...result.current.answers]).toEqual([
      [4, 2],
      [7, 1],
    ]);
  });

  it('stand while the server is away, and until it has them', async () => {
    const { result, seen } = use();
    answer = () => Promise.reject(new TypeError('no network'));
    act(() => result.current.answer([7], 1));
    await waitFor(() => expect(result.current.writing.fault).toBe(WAITS));
    expect(result.current.answers.get(7)).toBe(1);
    expect(result.current.undo).toBeNull();
    answer = () => Response.json({ answers: [[7, 1]], undo: { id: 'u1', squares: 1, own: true } });
    // The outbox tries again by itself.
    await waitFor(() => expect(seen().undo?.id).toBe('u1'), { timeout: 15_000 });
  });

  it('that were given last are undone', async () => {
    answer = () => Response.json({ answers: [[7, 1]], undo: { id: 'u1', squares: 1, own: true } });
    const { result, rerender, seen } = use();
    act(() => result.current.answer([7], 1));
    await waitFor(() => expect(seen().undo?.id).toBe('u1'));
    rerender();
    answer = () => Response.json({ answers: [], undo: null });
    await waitFor(() => expect(result.current.undo).not.toBeNull());
    act(() => result.current.undo!());
    await waitFor(() => expect(seen().undo).toBeNull());
    expect(asked.at(-1)!.body).toMatchObject({ undoes: 'u1' });
  });
});

it('a square in doubt gets no answer that was meant for the one before, which another screen settled', () => {
  let now = 10_000;
  vi.spyOn(performance, 'now').mockImplementation(() => now);
  const canvas = sampleCanvas();
  const onAnswer = vi.fn();
  const shown = (...cells: number[]) => (
    <DoubtfulSquares
      canvas={canvas}
      legend={[line(1), line(2)]}
      samples={[]}
      groups={[{ lines: [1, 2], cells }] as unknown as Parameters<typeof DoubtfulSquares>[0]['groups']}
      read={{ pictureOfSquare: () => null } as unknown as Parameters<typeof DoubtfulSquares>[0]['read']}
      onAnswer={onAnswer}
      onUndo={null}
    />
  );
  const key = (which: string) => fireEvent.keyDown(document.body, { key: which, code: `Digit${which}` });
  const { rerender } = render(shown(5, 6, 7, 8, 9));
  key('1');
  expect(onAnswer).toHaveBeenLastCalledWith([5], 1);
  // One after the other goes as fast as fingers do.
  rerender(shown(6, 7, 8, 9));
  key('2');
  expect(onAnswer).toHaveBeenLastCalledWith([6], 2);
  rerender(shown(7, 8, 9));
  // Another screen settles the seventh, in the moment in which it is answered here.
  rerender(shown(8, 9));
  for (const which of ['1', '0', ' ']) key(which);
  expect(onAnswer).toHaveBeenCalledTimes(2);
  now += TOO_SOON_MS;
  key('1');
  expect(onAnswer).toHaveBeenLastCalledWith([8], 1);
  vi.restoreAllMocks();
});
