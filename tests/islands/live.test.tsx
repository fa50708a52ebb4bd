// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useCode } from '../../src/islands/devices/useCode';
import { theShown } from '../../src/islands/live/shownParts';
import { canvasOfUrl, useLive, usePresent } from '../../src/islands/live/useLive';
import { beginKeeping, forgetKept, keepLaid } from '../../src/islands/offline/keeping';
import { Overlaps } from '../../src/islands/writing/overlaps';
import { theScreen } from '../../src/islands/writing/screen';
import { useAnswer } from '../../src/islands/writing/useAnswer';
import { useView } from '../../src/islands/writing/useView';
import { useKeypad } from '../../src/ui/useKeypad';
import { toldMark } from './liveWorld';
import { type Answers, standInFetch } from './requests';
import { SETTLE_MS, say, standInSource } from './standInSource';

const A = '00000000-0000-4000-8000-00000000000a';
const B = '00000000-0000-4000-8000-00000000000b';
const elsewhere = { screen: 'elsewhere', device: 'Tablet' };
let answer: Answers = () => Response.json({});
beforeEach(() => {
  localStorage.clear();
  standInSource();
  standInFetch((request) => answer(request));
});
afterEach(() => {
  vi.useRealTimers();
  cleanup();
  vi.unstubAllGlobals();
});
const settle = (ms = SETTLE_MS) => act(() => new Promise<void>((resolve) => setTimeout(resolve, ms)));

describe('useLive', () => {
  it('reads anew what another screen changed, once for several changes, and nothing else', async () => {
    const read = vi.fn();
    const { unmount } = renderHook(() => useLive(A, ['bags', 'marks'], read));
    await settle();
    for (const [canvas, event, data] of [
      [B, 'changed', { parts: ['bags'], by: elsewhere }],
      [A, 'changed', { parts: ['pots'], by: elsewhere }],
      [A, 'changed', { parts: ['bags'], by: { screen: theScreen().current(), device: 'Desk' } }],
      [A, 'present', { devices: ['Tablet'] }],
      [null, 'changed', {}],
    ] as const) {
      await say(canvas, event, data);
    }
    await settle();
    expect(read).not.toHaveBeenCalled();
    await say(A, 'changed', { parts: ['pots', 'bags'], by: elsewhere });
    await say(A, 'mark', toldMark(0, 1, 'lay', [0, 1]));
    await say(A, 'too-much', {});
    await settle();
    expect(read).toHaveBeenCalledOnce();
    // Nobody knows what it was, so it may be this.
    await say(A, 'changed', { parts: ['other'], by: null });
    await settle();
    expect(read).toHaveBeenCalledTimes(2);
    expect(theShown(A).has('bags')).toBe(true);
    unmount();
    expect(theShown(A).has('bags')).toBe(false);
    await say(A, 'changed', { parts: ['bags'], by: elsewhere });
    await settle();
    expect(read).toHaveBeenCalledTimes(2);
  });

  it('knows by its address what a view is of', () => {
    expect(canvasOfUrl(`/api/canvases/${A}/bags?x=1`)).toBe(A);
    expect(canvasOfUrl('/api/stash')).toBeNull();
  });

  it('keeps a view of the shelf and one of a canvas up to date, and drops an answer that comes too late', async () => {
    let stash = 1;
    const held: ((response: Response) => void)[] = [];
    let hold = false;
    answer = ({ url }) => {
      if (url !== '/api/stash') return Response.json('bags');
      if (!hold) return Response.json(`stash ${stash}`);
      return new Promise<Response>((resolve) => held.push(resolve));
    };
    const { result } = renderHook(() => useView('/api/stash', 'page', ['other']));
    await settle();
    stash = 2;
    await say(null, 'changed', {});
    await settle();
    expect(result.current[0]).toBe('stash 2');
    hold = true;
    for (let i = 0; i < 2; i++) {
      await say(null, 'changed', {});
      await settle();
    }
    await act(async () => held[1]!(Response.json('newest')));
    await act(async () => held[0]!(Response.json('older')));
    await settle();
    expect(result.current[0]).toBe('newest');
    const bags = renderHook(() => useAnswer(`/api/canvases/${A}/bags`, ['bags']));
    await settle();
    answer = () => Response.json('more bags');
    await say(A, 'changed', { parts: ['bags'], by: elsewhere });
    await settle();
    expect(bags.result.current.answer).toBe('more bags');
  });

  it('asks for a view again until what another screen did has come', async () => {
    answer = () => Response.json('stash 1');
    const { result, unmount } = renderHook(() => useView('/api/stash', 'page', ['other']));
    await settle();
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const wait = (ms: number) => act(async () => void (await vi.advanceTimersByTimeAsync(ms)));
    let tries = 0;
    answer = () => {
      tries++;
      return tries < 3 ? Promise.reject(new TypeError('Failed to fetch')) : Response.json('stash 2');
    };
    await say(null, 'changed', {});
    await wait(1000);
    expect([result.current[0], tries]).toEqual(['stash 1', 1]);
    await wait(2000);
    expect([result.current[0], tries]).toEqual(['stash 1', 2]);
    await wait(5000);
    expect([result.current[0], tries]).toEqual(['stash 2', 3]);
    answer = () => Promise.reject(new TypeError('Failed to fetch'));
    await say(null, 'changed', {});
    await wait(100);
    unmount();
    expect(vi.getTimerCount()).toBe(0);
  });

  it('keeps what is shown when a newer answer does not come, asks again, and tells a refusal', async () => {
    const url = `/api/canvases/${A}/bags`;
    const away = () => Promise.reject(new TypeError('Failed to fetch'));
    const refused = () => Response.json({ detail: 'This canvas was deleted.' }, { status: 404 });
    answer = () => Response.json('bags');
    const { result, rerender, unmount } = renderHook(({ of }) => useAnswer(of, ['bags']), {
      initialProps: { of: url },
    });
    await settle();
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const wait = (ms: number) => act(async () => void (await vi.advanceTimersByTimeAsync(ms)));
    answer = away;
    act(() => result.current.reload());
    await wait(1000);
    expect([result.current.answer, result.current.fault]).toEqual(['bags', null]);
    answer = () => Response.json({}, { status: 500 });
    await wait(1500);
    expect([result.current.answer, result.current.fault]).toEqual(['bags', null]);
    answer = () => Response.json('more bags');
    await wait(5000);
    expect(result.current.answer).toBe('more bags');
    // Of another question nothing is here; when it is answered after all, the fault goes.
    answer = away;
    rerender({ of: `${url}?all` });
    await wait(100);
    expect(result.current.fault).toMatch(/does not answer/);
    expect(result.current.isOld).toBe(true);
    answer = () => Response.json('all bags');
    await wait(2000);
    expect([result.current.answer, result.current.fault]).toEqual(['all bags', null]);
    expect(result.current.isOld).toBe(false);
    answer = refused;
    act(() => result.current.reload());
    await wait(100);
    expect(result.current.fault).toBe('This canvas was deleted.');
    answer = () => Response.json('again');
    await wait(60_000);
    // Who was refused does not ask for ever.
    expect(result.current.fault).toBe('This canvas was deleted.');
    answer = away;
    act(() => result.current.reload());
    await wait(100);
    unmount();
    expect(vi.getTimerCount()).toBe(0);
  });

  it('tells who else has a canvas open', async () => {
    const { result } = renderHook(() => {
      useLive(B, ['marks'], () => {});
      return usePresent(B);
    });
    await settle();
    await say(B, 'present', { devices: ['Desk', 'Phone'] });
    expect(result.current).toEqual(['Desk', 'Phone']);
    await say(B, 'present', { devices: [] });
    expect(result.current).toEqual([]);
  });
});

describe('keeping', () => {
  afterEach(() => void vi.useRealTimers());

  it('is only for devices, which come over HTTPS', async () => {
    const open = vi.fn();
    vi.stubGlobal('caches', { open });
    keepLaid(A, () => ({ bitmap: Uint8Array.of(1), position: 5 }));
    await beginKeeping(A);
    await settle(1100);
    expect(open).not.toHaveBeenCalled();
  });

  it('keeps what is laid as it stands a moment after the last change, each canvas by itself', async () => {
    vi.stubGlobal('location', { protocol: 'https:' });
    const kept = new Map<string, Response>();
    vi.stubGlobal('caches', {
      open: async () => ({ put: async (url: string, response: Response) => void kept.set(url, response) }),
      delete: async () => kept.clear(),
    });
    let position = 5;
    const laid = () => ({ bitmap: Uint8Array.of(position), position });
    keepLaid(A, laid);
    position = 6;
    keepLaid(A, laid);
    keepLaid(B, () => ({ bitmap: Uint8Array.of(1), position: 1 }));
    position = 7;
    await settle(1200);
    expect([...kept.keys()].sort()).toEqual([`/api/canvases/${A}/bitmap`, `/api/canvases/${B}/bitmap`]);
    const answer = kept.get(`/api/canvases/${A}/bitmap`)!;
    expect(answer.headers.get('x-oculent-stamp')).toBe('0-7');
    expect([...new Uint8Array(await answer.arrayBuffer())]).toEqual([7]);
    await forgetKept();
    expect(kept.size).toBe(0);
  });

  it('asks the service worker for the whole canvas, and works on where the device does not trust the address', async () => {
    vi.stubGlobal('location', { protocol: 'https:' });
    const postMessage = vi.fn();
    const register = vi.fn(async () => {});
    vi.stubGlobal('navigator', {
      serviceWorker: { register, ready: Promise.resolve({ active: { postMessage } }) },
    });
    await beginKeeping(A);
    await beginKeeping(null);
    expect(postMessage.mock.calls).toEqual([[{ keep: A }]]);
    register.mockRejectedValue(new DOMException('', 'SecurityError'));
    await expect(beginKeeping(A)).resolves.toBeUndefined();
  });
});

describe('what two screens did alike', () => {
  it('is counted for marks that waited, and for nothing else', () => {
    let heard: Parameters<ConstructorParameters<typeof Overlaps>[0]['onAnswer']>[0] = () => {};
    const outbox = {
      onAnswer: (listener: typeof heard) => {
        heard = listener;
        return () => {};
      },
    };
    const overlaps = new Overlaps(outbox, () => 100_000);
    const told = vi.fn();
    overlaps.subscribe(told);
    const write = (madeAt: number, runs: number[] | undefined, url = `/api/canvases/${A}/marks`) => ({
      key: `${madeAt * 1000}-abcdef`,
      canvasId: A,
      method: 'POST' as const,
      url,
      body: { runs },
      tries: 0,
      aside: null,
    });
    heard(A, { runs: [3, 1] }, true, write(50_000, [0, 2, 3, 1]));
    heard(A, { runs: [3, 1] }, true, write(95_000, [0, 2, 3, 1]));
    heard(A, { runs: [0, 3] }, true, write(50_000, [0, 3]));
    heard(A, { runs: [] }, true, write(50_000, undefined));
    heard(A, null, true, write(50_000, [0, 3]));
    heard(A, { runs: [] }, true, write(50_000, [0, 3], `/api/canvases/${A}/bags`));
    expect([overlaps.current(), told.mock.calls.length]).toEqual([2, 1]);
    overlaps.forget();
    expect(overlaps.current()).toBe(0);
  });
});

describe('the code on the desk’s screen', () => {
  it('counts down by the page’s own clock, and is hidden when it was used', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] });
    answer = () => Response.json({ code: 'K7QM-4RTX', seconds: 600, ways: [] }, { status: 201 });
    const act_ = async (work: () => Promise<void>) => {
      await work();
      return true;
    };
    const { result } = renderHook(() => useCode(act_));
    expect(result.current.code).toBeNull();
    await act(async () => result.current.show());
    await waitFor(() => expect(result.current.code?.code).toBe('K7QM-4RTX'));
    expect(result.current.left).toBe(600);
    await act(async () => void vi.advanceTimersByTime(61_000));
    expect(result.current.left).toBe(539);
    await act(async () => void vi.advanceTimersByTime(600_000));
    expect(result.current.left).toBe(0);
    act(() => result.current.hide());
    expect(result.current.code).toBeNull();
    vi.useRealTimers();
  });
});

it('the keypad is there where fingers point, until it is put away', () => {
  vi.stubGlobal('matchMedia', (query: string) => ({ matches: query.includes('coarse') }));
  const { result } = renderHook(useKeypad);
  expect(result.current[0]).toBe(true);
  act(() => result.current[1](false));
  expect(result.current[0]).toBe(false);
  expect(renderHook(useKeypad).result.current[0]).toBe(false);
  localStorage.clear();
  vi.stubGlobal('matchMedia', () => ({ matches: false }));
  expect(renderHook(useKeypad).result.current[0]).toBe(false);
});
