/** So many wrong tries are slips of the finger. */
const FREE = { address: 4, all: 20 };
const LONGEST_WAIT_MS = { address: 15 * 60_000, all: 60_000 };
/** Wrong tries are forgotten so long after the last one. */
const FORGIVEN_MS = 60 * 60_000;
/** Addresses that are remembered; a network has as many as somebody cares to invent. */
const MOST_ADDRESSES = 500;

/** Wrong tries of one address. */
export interface WrongTries {
  address: string;
  wrong: number;
  /** Of the same clock as all moments here. */
  last: number;
}

/**
 * Slows down who guesses, by address and in all: each wrong try beyond the first few doubles the wait.
 * All moments are milliseconds of a clock that never goes back.
 */
export class Guesses {
  private readonly tries = new Map<string, WrongTries>();
  private all = { wrong: 0, last: 0 };

  /** Milliseconds until a try from this address is looked at; 0 for at once. */
  waitMs(address: string, now: number): number {
    this.forget(now);
    const mine = this.tries.get(address);
    const wait = (kind: 'address' | 'all', wrong: number, last: number) =>
      wrong < FREE[kind]
        ? 0
        : last + Math.min(LONGEST_WAIT_MS[kind], 1000 * 2 ** Math.min(30, wrong - FREE[kind])) - now;
    return Math.max(
      0,
      mine ? wait('address', mine.wrong, mine.last) : 0,
      wait('all', this.all.wrong, this.all.last),
    );
  }

  /** Notes a wrong try. */
  wrong(address: string, now: number): void {
    this.forget(now);
    const wrong = (this.tries.get(address)?.wrong ?? 0) + 1;
    // The newest last, so that the oldest is dropped when there are too many.
    this.tries.delete(address);
    this.tries.set(address, { address, wrong, last: now });
    if (this.tries.size > MOST_ADDRESSES) this.tries.delete(this.tries.keys().next().value!);
    this.all = { wrong: this.all.wrong + 1, last: now };
  }

  /** Somebody at this address knew it after all: what was tried there counts no longer. */
  right(address: string): void {
    this.all.wrong = Math.max(0, this.all.wrong - (this.tries.get(address)?.wrong ?? 0));
    this.tries.delete(address);
  }

  /** Wrong tries by address, the newest first. */
  told(now: number): WrongTries[] {
    this.forget(now);
    return [...this.tries.values()].reverse();
  }

  private forget(now: number): void {
    for (const [address, { last }] of this.tries) if (now - last > FORGIVEN_MS) this.tries.delete(address);
    if (now - this.all.last > FORGIVEN_MS) this.all = { wrong: 0, last: 0 };
  }
}
