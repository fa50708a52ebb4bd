import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { describe, expect, it, vi } from 'vitest';
import {
  browserStore,
  memoryStore,
  safeStore,
  type WaitingStore,
  whenMade,
} from '../../src/islands/writing/waitingStore';
import { StandInBrowser, StandInServer, settled } from './world';

const CANVAS = 'c1';
const put = (tab: ReturnType<StandInBrowser['tab']>, n: number, canvas = CANVAS) =>
  tab.outbox.put('POST', `/api/canvases/${canvas}/marks`, { n }, canvas);
const numbers = (server: StandInServer) => server.got.map(({ body }) => (body as { n: number }).n);

describe('the outbox', () => {
  it('sends writes in their order, one at a time, while the last answer is held', async () => {
    const server = new StandInServer();
    const tab = new StandInBrowser(server).tab();
    server.hold();
    for (let n = 1; n <= 5; n++) await put(tab, n);
    expect(tab.outbox.current().waiting).toBe(5);
    server.release();
    await settled();
    expect(numbers(server)).toEqual([1, 2, 3, 4, 5]);
    expect(tab.outbox.current()).toEqual({ waiting: 0, away: false, out: false, aside: [], unkept: false });
  });

  it('knows when each was made, those of an older program by their key', async () => {
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    server.plan = ['away'];
    const first = browser.tab();
    vi.setSystemTime(new Date('2026-05-01T20:00:00Z'));
    await put(first, 1);
    await settled();
    first.close();
    vi.setSystemTime(new Date('2026-05-02T09:00:00Z'));
    server.plan = ['ok'];
    browser.tab().outbox.start();
    await settled();
    vi.useRealTimers();
    const [write] = server.got;
    expect(new Date(whenMade(write!)).toISOString()).toBe('2026-05-01T20:00:00.000Z');
    expect(new Date(whenMade({ key: write!.key })).toISOString()).toBe('2026-05-01T20:00:00.000Z');
  });

  it('keeps what is written while the server is away, over a closed page, and loses nothing of two tabs', async () => {
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    server.plan = ['away'];
    const [first, second] = [browser.tab(), browser.tab()];
    for (let n = 1; n <= 4; n++) {
      await put(n % 2 ? first : second, n);
      // Nobody writes in two tabs within a millisecond.
      await new Promise((resolve) => setTimeout(resolve, 3));
    }
    await settled();
    expect(first.outbox.current()).toMatchObject({ waiting: 4, away: true });
    expect(second.outbox.current().waiting).toBe(4);
    first.close();
    second.close();
    server.plan = ['ok'];
    // Any other page, of whichever canvas, sends what they left behind.
    const third = browser.tab();
    third.outbox.start();
    await settled();
    expect(numbers(server)).toEqual([1, 2, 3, 4]);
    expect([await browser.store.count(), await browser.store.aside()]).toEqual([0, []]);
  });

  it.each([
    ['an hour back', Date.now() - 3_600_000],
    ['to its beginning', 1000],
  ])('sends what is made later later, though the clock was set %s meanwhile', async (_what, clock) => {
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    server.plan = ['away'];
    const first = browser.tab();
    for (let n = 1; n <= 3; n++) await put(first, n);
    first.close();
    const now = vi.spyOn(Date, 'now').mockReturnValue(clock);
    // A page that is opened anew knows of the others by what waits alone.
    const second = browser.tab();
    await Promise.all([put(second, 4), put(second, 5)]);
    now.mockRestore();
    const third = browser.tab();
    await put(third, 6);
    server.plan = ['ok'];
    third.outbox.start();
    await settled();
    expect(numbers(server)).toEqual([1, 2, 3, 4, 5, 6]);
  });

  it('sends each write as one of the tab where it was made, whichever tab sends it', async () => {
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    server.plan = ['away'];
    const [first, second] = [browser.tab(), browser.tab()];
    await put(first, 1);
    await put(second, 2);
    await settled();
    server.plan = ['ok'];
    second.outbox.start();
    await settled();
    expect(server.got.map(({ screen }) => screen)).toEqual(['screen 1', 'screen 2']);
  });

  it('sends no more of what waits once its turn was taken from it', async () => {
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    server.hold();
    const tab = browser.tab();
    for (let n = 1; n <= 3; n++) await put(tab, n);
    await settled();
    // As when another tab took it while this one slept; what is under way is answered yet.
    tab.close();
    server.release();
    await settled();
    expect(numbers(server)).toEqual([1]);
    const other = browser.tab();
    other.outbox.start();
    await settled();
    expect(numbers(server)).toEqual([1, 2, 3]);
  });

  it('asks the browser once to keep what waits, and only when something does', async () => {
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    const tab = browser.tab();
    await put(tab, 1);
    await settled();
    expect(browser.kept).toBe(0);
    server.plan = ['away'];
    await put(tab, 2);
    await put(tab, 3);
    await settled();
    await browser.wait();
    expect(browser.kept).toBe(1);
    server.plan = ['ok'];
    await browser.wait();
    server.plan = ['away'];
    await put(tab, 4);
    await settled();
    expect(browser.kept).toBe(2);
  });

  it('sends a write again whose answer was lost, under the same id', async () => {
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    server.plan = ['lost', 'ok'];
    const tab = browser.tab();
    await tab.outbox.put('POST', '/x', { id: 'one' }, CANVAS);
    await settled();
    await browser.wait();
    expect(server.got.map(({ body }) => body)).toEqual([{ id: 'one' }, { id: 'one' }]);
    expect(tab.outbox.current().waiting).toBe(0);
  });

  it('sets a refused write aside with its sentence and goes on; it can be tried again or dropped', async () => {
    const server = new StandInServer();
    const tab = new StandInBrowser(server).tab();
    server.plan = [409, 'ok'];
    await put(tab, 1);
    await put(tab, 2);
    await settled();
    expect(numbers(server)).toEqual([2]);
    const [aside] = tab.outbox.current().aside;
    expect(aside).toMatchObject({ aside: 'Refused with 409.', body: { n: 1 } });
    await tab.outbox.retry(aside!);
    await settled();
    expect(numbers(server)).toEqual([2, 1]);
    server.plan = [422];
    await put(tab, 3);
    await settled();
    await tab.outbox.drop(tab.outbox.current().aside[0]!);
    expect(tab.outbox.current()).toMatchObject({ waiting: 0, aside: [] });
  });

  it('tells who waits for the answer of a refusal, and then keeps nothing', async () => {
    const server = new StandInServer();
    const tab = new StandInBrowser(server).tab();
    server.plan = [409];
    const hopes = { answered: vi.fn(), refused: vi.fn(), away: vi.fn() };
    await tab.outbox.put('PUT', '/plan', {}, null, hopes);
    await settled();
    expect(hopes.refused).toHaveBeenCalledOnce();
    expect(hopes.answered).not.toHaveBeenCalled();
    expect(tab.outbox.current()).toMatchObject({ waiting: 0, aside: [] });
  });

  it('gives the answer to the tab that asked, when another tab sent it', async () => {
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    server.plan = ['away'];
    const [asking, other] = [browser.tab(), browser.tab()];
    const hopes = { answered: vi.fn(), refused: vi.fn(), away: vi.fn() };
    await asking.outbox.put('POST', '/x', { n: 7 }, CANVAS, hopes);
    await settled();
    expect(hopes.away).toHaveBeenCalled();
    const heard = vi.fn();
    asking.outbox.onAnswer(heard);
    server.plan = ['ok'];
    other.outbox.start();
    await settled();
    expect(hopes.answered).toHaveBeenCalledExactlyOnceWith({ did: 7 });
    expect(heard).toHaveBeenCalledExactlyOnceWith(
      CANVAS,
      { did: 7 },
      true,
      expect.objectContaining({ canvasId: CANVAS }),
    );
  });

  it('tries again when the server is at fault, and after three times lets the others pass', async () => {
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    const tab = browser.tab();
    server.plan = [500, 500, 500, 'ok'];
    await put(tab, 1);
    await put(tab, 2);
    await settled();
    expect(tab.outbox.current()).toMatchObject({ waiting: 2, away: true });
    await browser.wait();
    await browser.wait();
    expect(numbers(server)).toEqual([2]);
    expect(tab.outbox.current().aside).toMatchObject([{ body: { n: 1 }, tries: 0 + 2 }]);
  });

  it('tells the writes of one canvas from those of another', async () => {
    const server = new StandInServer();
    server.plan = ['away'];
    const tab = new StandInBrowser(server).tab();
    await put(tab, 1, 'c1');
    await put(tab, 2, 'c2');
    await settled();
    expect((await tab.outbox.waitingFor('c2')).map(({ body }) => body)).toEqual([{ n: 2 }]);
  });
});

it('keeps all that waits while a device is not let in, and sends it once it has joined again', async () => {
  const server = new StandInServer();
  server.plan = [401];
  const browser = new StandInBrowser(server);
  const tab = browser.tab();
  for (const n of [1, 2, 3]) await put(tab, n);
  await settled();
  expect(tab.outbox.current()).toMatchObject({ waiting: 3, away: true, out: true, aside: [] });
  await browser.wait();
  expect(tab.outbox.current().waiting).toBe(3);
  server.plan = ['ok'];
  await browser.wait();
  expect(numbers(server)).toEqual([1, 2, 3]);
  expect(tab.outbox.current()).toMatchObject({ waiting: 0, out: false, aside: [] });
});

describe('the store of waiting writes', () => {
  const write = (key: string) => ({
    key,
    canvasId: null,
    method: 'POST' as const,
    url: '/x',
    body: {},
    tries: 0,
    aside: null,
  });

  it('in the browser keeps them in order over a reload, and passes over what is none', async () => {
    const store = browserStore('box-1');
    await store.put(write('2'));
    await store.put(write('1'));
    const raw = await openDB('box-1', 2);
    await raw.put('waiting', { key: '0', garbage: true });
    const again = browserStore('box-1');
    expect((await again.first(9)).map(({ key }) => key)).toEqual(['1', '2']);
    expect((await again.first(1)).map(({ key }) => key)).toEqual(['1']);
    expect(await again.lastKey()).toBe('2');
    expect(await again.count()).toBe(2);
    await store.remove('1');
    expect((await store.first(1)).map(({ key }) => key)).toEqual(['2']);
    await store.remove('2');
    expect(await store.first(9)).toEqual([]);
    expect(await store.lastKey()).toBeNull();
    expect(await again.count()).toBe(0);
  });

  it('keeps those of two canvases apart, and those that were set aside', async () => {
    for (const store of [browserStore('box-2'), memoryStore()]) {
      await store.put({ ...write('1'), canvasId: 'a' });
      await store.put({ ...write('2'), canvasId: 'b' });
      await store.put({ ...write('3'), canvasId: 'a' });
      expect((await store.waitingFor('a')).map(({ key }) => key)).toEqual(['1', '3']);
      await store.put({ ...write('1'), canvasId: 'a', aside: 'refused' });
      expect((await store.waitingFor('a')).map(({ key }) => key)).toEqual(['3']);
      expect((await store.aside()).map(({ key }) => key)).toEqual(['1']);
      expect(await store.count()).toBe(2);
      await store.put({ ...write('1'), canvasId: 'a' });
      expect(await store.aside()).toEqual([]);
      expect((await store.first(1))[0]!.key).toBe('1');
    }
  });

  it('goes on where the browser lost its database meanwhile, and loses nothing', async () => {
    const store = browserStore('box-4');
    await store.put(write('1'));
    // As tablets do while they sleep: the connection is there, and nothing can be asked of it any more.
    const lost = vi.spyOn(IDBDatabase.prototype, 'transaction').mockImplementationOnce(() => {
      throw new DOMException('Connection to Indexed Database server lost', 'UnknownError');
    });
    await store.put(write('2'));
    expect((await store.first(9)).map(({ key }) => key)).toEqual(['1', '2']);
    lost.mockRestore();
    const open = vi.spyOn(indexedDB, 'open').mockImplementationOnce(() => {
      throw new DOMException('not now', 'UnknownError');
    });
    const late = browserStore('box-4');
    expect(await late.count()).toBe(2);
    open.mockRestore();
  });

  it('takes over what an older version of the program left', async () => {
    const old = await openDB('box-3', 1, {
      upgrade: (database) => void database.createObjectStore('waiting', { keyPath: 'key' }),
    });
    await old.put('waiting', { ...write('1'), canvasId: 'a' });
    await old.put('waiting', { ...write('2'), aside: 'refused' });
    await old.put('waiting', { key: '3', garbage: true });
    old.close();
    const store = browserStore('box-3');
    expect((await store.waitingFor('a')).map(({ key }) => key)).toEqual(['1']);
    expect((await store.aside()).map(({ key }) => key)).toEqual(['2']);
    expect(await store.count()).toBe(1);
  });

  it('goes on in memory when the browser can keep nothing, and says so', async () => {
    const broken: WaitingStore = {
      first: () => Promise.reject(new Error('broken')),
      lastKey: () => Promise.reject(new Error('broken')),
      count: () => Promise.reject(new Error('broken')),
      waitingFor: () => Promise.reject(new Error('broken')),
      aside: () => Promise.reject(new Error('broken')),
      put: () => Promise.reject(new DOMException('full', 'QuotaExceededError')),
      remove: () => Promise.reject(new Error('broken')),
    };
    const told = vi.fn();
    const server = new StandInServer();
    server.plan = ['away'];
    const browser = new StandInBrowser(server, safeStore(broken, told));
    const tab = browser.tab();
    await put(tab, 1);
    await settled();
    expect(told).toHaveBeenCalled();
    expect(tab.outbox.current().waiting).toBe(1);
    server.plan = ['ok'];
    await browser.wait();
    expect(numbers(server)).toEqual([1]);
    expect(tab.outbox.current().waiting).toBe(0);
  });

  it('in memory sorts by key', async () => {
    const store = memoryStore();
    await store.put(write('b'));
    await store.put(write('a'));
    expect((await store.first(1))[0]!.key).toBe('a');
    await store.remove('a');
    expect((await store.first(1))[0]!.key).toBe('b');
  });
});
