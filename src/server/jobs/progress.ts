/** Tells how far a piece of work is: `done` of `of` steps. */
export type TellProgress = (done: number, of: number) => void;

/** How far a piece of work is, in memory that a worker writes and the server reads: steps done, steps in all. */
export class Progress {
  private readonly steps: Int32Array;

  /** @param shared 8 bytes */
  constructor(readonly shared: SharedArrayBuffer = new SharedArrayBuffer(8)) {
    this.steps = new Int32Array(shared);
  }

  readonly report: TellProgress = (done, of) => {
    Atomics.store(this.steps, 0, done);
    Atomics.store(this.steps, 1, of);
  };

  /** @returns `of` is 0 while nothing is known */
  read(): { done: number; of: number } {
    return { done: Atomics.load(this.steps, 0), of: Atomics.load(this.steps, 1) };
  }
}
