// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import { Screen } from '../../src/islands/writing/screen';
import { Kept } from '../../src/ui/kept';

/** Locks of a browser: one holder a name, the others wait until they lose their patience. */
class StandInLocks {
  private readonly held = new Map<string, Promise<unknown>>();
  private readonly free = new Map<string, () => void>();

  readonly request = (async (name: string, { signal }: LockOptions, work: () => Promise<unknown>) => {
    const lost = new Promise<never>((_, reject) => {
      signal!.addEventListener('abort', () => reject(signal!.reason));
    });
    await Promise.race([this.held.get(name), lost]);
    this.held.set(name, new Promise<void>((resolve) => this.free.set(name, resolve)));
    await work();
  }) as LockManager['request'];

  /** The page that holds it is left. */
  release(name: string): void {
    this.free.get(name)?.();
    this.held.delete(name);
  }
}

beforeEach(() => sessionStorage.clear());
/** What one tab keeps; a duplicate begins with the same. */
function tab(like?: Storage): Storage {
  const entries = new Map(like ? [['oculent-screen', like.getItem('oculent-screen')!]] : []);
  return {
    getItem: (key: string) => entries.get(key) ?? null,
    setItem: (key: string, value: string) => void entries.set(key, value),
    removeItem: (key: string) => void entries.delete(key),
  } as unknown as Storage;
}
const screenOf = (store: Storage, locks: StandInLocks | null, patience = 30) =>
  new Screen(new Kept(() => store), locks, patience);

describe('a screen', () => {
  it('keeps its name over a reload, also when the page of before lets go a little late', async () => {
    const [locks, store] = [new StandInLocks(), tab()];
    const name = await screenOf(store, locks).own();
    setTimeout(() => locks.release(`oculent-screen-${name}`), 10);
    const again = screenOf(store, locks, 2000);
    expect(again.current()).toBe(name);
    expect(await again.own()).toBe(name);
  });

  it('that was duplicated takes a name of its own, and keeps that over a reload', async () => {
    const [locks, store] = [new StandInLocks(), tab()];
    const first = await screenOf(store, locks).own();
    const copy = tab(store);
    const second = screenOf(copy, locks);
    expect(second.current()).toBe(first);
    const own = await second.own();
    expect(own).not.toBe(first);
    expect(second.current()).toBe(own);
    locks.release(`oculent-screen-${own}`);
    expect(await screenOf(copy, locks).own()).toBe(own);
    // A third one, of the second, is none of the two either.
    const third = await screenOf(tab(copy), locks).own();
    expect([first, own]).not.toContain(third);
  });

  it('is another one in each tab, and has a name where nothing is kept or locked', async () => {
    const locks = new StandInLocks();
    const names = await Promise.all([screenOf(tab(), locks).own(), screenOf(tab(), locks).own()]);
    expect(names[0]).not.toBe(names[1]);
    const denied = new Screen(
      new Kept(() => {
        throw new DOMException('denied', 'SecurityError');
      }),
      null,
    );
    expect(await denied.own()).toBe(denied.current());
    expect(denied.current()).toMatch(/^[\da-f-]{36}$/);
  });
});
