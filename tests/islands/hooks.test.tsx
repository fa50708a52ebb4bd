// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useJob } from '../../src/islands/writing/useJob';
import { useNewest } from '../../src/islands/writing/useNewest';
import { useView } from '../../src/islands/writing/useView';
import { useWrite, WAITS } from '../../src/islands/writing/useWrite';
import { type Answers, type Asked, held, standInFetch } from './requests';

/** Requests in their order, and what each is answered with. */
let asked: Asked[] = [];
let answer: Answers = () => Response.json({});
beforeEach(() => {
  asked = standInFetch((request) => answer(request));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('useWrite', () => {
  it('is busy until the answer, hands it on, and gives each entry an id of its own', async () => {
    const waiting = held();
    answer = () => waiting.promise;
    const got: unknown[] = [];
    const { result } = renderHook(() => useWrite('c1'));
    let done: Promise<boolean> = Promise.resolve(false);
    act(() => {
      done = result.current.enter('/api/a', { n: 1 }, (view) => got.push(view));
    });
    expect(result.current.busy).toBe(true);
    // The very same entry twice, as a double click makes it, is one.
    act(() => void result.current.enter('/api/a', { n: 1 }, () => {}));
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]!.body!.id).toMatch(/^[0-9a-f-]{36}$/);
    waiting.release(Response.json({ said: 'yes' }));
    await act(async () => expect(await done).toBe(true));
    expect(got).toEqual([{ said: 'yes' }]);
    expect(result.current.busy).toBe(false);
  });

  it('takes a write under another id for the same, as long as it is under way', async () => {
    const waiting = held();
    answer = ({ body }) => (body!.id === '1' ? waiting.promise : Response.json({}));
    const { result } = renderHook(() => useWrite('c1'));
    const write = (id: string, n: number) =>
      act(() => void result.current.write('PUT', '/api/b', { id, n }, () => {}));
    for (const id of ['1', '2']) write(id, 1);
    write('3', 2);
    waiting.release(Response.json({}));
    await waitFor(() => expect(result.current.busy).toBe(false));
    write('4', 1);
    await waitFor(() => expect(asked).toHaveLength(3));
    expect(asked.map(({ body }) => body)).toEqual([
      { id: '1', n: 1 },
      { id: '3', n: 2 },
      { id: '4', n: 1 },
    ]);
  });

  it('tells a refusal in the words of the server', async () => {
    answer = () => Response.json({ detail: 'The pot is filled already.' }, { status: 409 });
    const { result } = renderHook(() => useWrite('c1'));
    await act(async () => {
      expect(await result.current.write('PUT', '/api/b', {}, () => {})).toBe(false);
    });
    expect(result.current.fault).toBe('The pot is filled already.');
  });

  it('tries again what was refused, also while something else is under way', async () => {
    const waiting = held();
    answer = ({ url }) =>
      url === '/api/y' ? waiting.promise : Response.json({ detail: 'Not now.' }, { status: 409 });
    const { result } = renderHook(() => useWrite('c1'));
    const results: boolean[] = [];
    const press = (url: string) =>
      act(() => void result.current.enter(url, {}, () => {}).then((done) => results.push(done)));
    press('/api/x');
    press('/api/y');
    await waitFor(() => expect(results).toEqual([false]));
    press('/api/x');
    waiting.release(Response.json({}));
    await waitFor(() => expect(results).toEqual([false, true, false]));
    expect(asked.filter(({ url }) => url === '/api/x')).toHaveLength(2);
  });

  it('says that a write waits while the server is away, and hands the answer on once it is back', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout'] });
    try {
      answer = () => Promise.reject(new Error('connection refused'));
      const got: unknown[] = [];
      const { result } = renderHook(() => useWrite('c1'));
      await act(async () => {
        expect(await result.current.enter('/api/c', { n: 1 }, (view) => got.push(view))).toBe(false);
      });
      expect(result.current.fault).toBe(WAITS);
      const id = asked.at(-1)!.body!.id;
      answer = () => Response.json({ late: true });
      await act(async () => {
        await vi.advanceTimersByTimeAsync(5000);
      });
      vi.useRealTimers();
      await waitFor(() => expect(got).toEqual([{ late: true }]));
      expect(asked.at(-1)!.body!.id).toBe(id);
      expect(result.current.fault).toBeNull();
    } finally {
      vi.useRealTimers();
    }
  });
});

describe('useView', () => {
  it('asks once more for what came with the page, and drops that answer when something newer is shown', async () => {
    const waiting = [held(), held()];
    let requests = 0;
    answer = () => waiting[requests++]!.promise;
    const { result } = renderHook(() => useView<string>('/api/v', 'page', []));
    act(() => result.current[1]('newer'));
    for (const [i, shown] of ['newer', 'newest'].entries()) {
      waiting[i]!.release(Response.json(i === 0 ? 'late' : 'newest'));
      await act(async () => {
        await waiting[i]!.promise;
      });
      expect(result.current[0]).toBe(shown);
    }
    // Nothing is on its way any more that could be older.
    act(() => result.current[1]('mine'));
    expect([result.current[0], requests]).toEqual(['mine', 2]);
    answer = () => Response.json('fresh');
    const other = renderHook(() => useView('/api/w', 'page', []));
    await waitFor(() => expect(other.result.current[0]).toBe('fresh'));
  });
});

it('of several changes in a row the answer to the last is shown alone, whatever order they come in', () => {
  const { result, rerender } = renderHook(() => useNewest());
  const shown: string[] = [];
  const answers = ['a', 'b', 'c'].map((name) => {
    rerender();
    return result.current((answer: string) => shown.push(`${name} ${answer}`));
  });
  for (const at of [0, 2, 1]) answers[at]!('came');
  expect(shown).toEqual(['c came']);
});

describe('useJob', () => {
  it('shows how far it is, and ends it here and on the server', async () => {
    const work = held();
    answer = ({ url, method }) => {
      if (method === 'DELETE') return new Response(null, { status: 204 });
      return url.startsWith('/api/jobs/') ? Response.json({ done: 3, of: 8 }) : work.promise;
    };
    const { result } = renderHook(() => useJob());
    let id = '';
    let done: Promise<boolean> = Promise.resolve(true);
    act(() => {
      done = result.current.run(async (job, signal) => {
        id = job;
        await fetch('/long', { signal });
      });
    });
    expect(result.current.busy).toBe(true);
    await waitFor(() => expect(result.current.running).toEqual({ done: 3, of: 8 }), { timeout: 3000 });
    await act(async () => {
      result.current.cancel();
      expect(await done).toBe(false);
    });
    expect(asked.some(({ method, url }) => method === 'DELETE' && url === `/api/jobs/${id}`)).toBe(true);
    expect(result.current).toMatchObject({ busy: false, running: null, fault: null });
  });

  it('tells what went wrong', async () => {
    const { result } = renderHook(() => useJob());
    await act(async () => {
      expect(await result.current.run(() => Promise.reject(new Error('Too large.')))).toBe(false);
    });
    expect(result.current.fault).toBe('Too large.');
  });
});
