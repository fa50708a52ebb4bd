import { describe, expect, it, vi } from 'vitest';
import { takeTurn } from '../../src/islands/writing/turn';

/** The browser's locks (W3C Web Locks API): in order, given up by a signal, taken by `steal`. */
class StandInLocks {
  private holder: { reject: (why: unknown) => void; over: Promise<void> } | null = null;

  readonly request = ((_: string, { steal, signal }: LockOptions, work: () => Promise<void>) =>
    new Promise<void>((resolve, reject) => {
      signal?.addEventListener('abort', () => reject(new DOMException('given up', 'AbortError')));
      const begin = () => {
        if (signal?.aborted) return;
        const over = Promise.resolve().then(work);
        this.holder = { reject, over };
        over.then(resolve, reject);
      };
      if (steal) {
        this.holder?.reject(new DOMException('stolen', 'AbortError'));
        begin();
      } else if (this.holder) void this.holder.over.then(begin, begin);
      else begin();
    })) as LockManager['request'];
}
const never = () => new Promise<void>(() => {});

describe('a turn', () => {
  it('comes when the one before is over', async () => {
    const locks = new StandInLocks();
    const did: string[] = [];
    const one = takeTurn(locks, 'x', async () => void did.push('one'));
    const two = takeTurn(locks, 'x', async () => void did.push('two'));
    await Promise.all([one, two]);
    expect(did).toEqual(['one', 'two']);
  });

  it('is given up without a word, and taken by force from one that does nothing with it, who is told', async () => {
    const locks = new StandInLocks();
    const [lost, late] = [vi.fn(), vi.fn()];
    const asleep = takeTurn(locks, 'x', never, { lost });
    const giving = new AbortController();
    const work = vi.fn(async () => {});
    const waits = takeTurn(locks, 'x', work, { signal: giving.signal, lost: late });
    giving.abort();
    await waits;
    expect(work).not.toHaveBeenCalled();
    await takeTurn(locks, 'x', work, { byForce: true });
    await asleep;
    expect(work).toHaveBeenCalledOnce();
    expect(lost).toHaveBeenCalledOnce();
    expect(late).not.toHaveBeenCalled();
  });

  it('that is given up in the moment in which it came is lost, and no fault', async () => {
    const signal = AbortSignal.timeout(5);
    // The browser grants it and gives it up at once.
    const request = (async (_name: string, _options: LockOptions, work: () => Promise<void>) => {
      void work();
      await new Promise((resolve) => signal.addEventListener('abort', resolve));
      throw signal.reason;
    }) as unknown as LockManager['request'];
    const lost = vi.fn();
    await takeTurn({ request }, 'x', never, { signal, lost });
    expect(lost).toHaveBeenCalledOnce();
  });

  it('ends with the fault of its work', async () => {
    const fault = new Error('broken');
    await expect(takeTurn(new StandInLocks(), 'x', () => Promise.reject(fault))).rejects.toBe(fault);
  });
});
