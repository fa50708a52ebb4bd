/** A slice of work between two frames takes no longer than this. */
const SLICE_MS = 6;
/** A page that is never idle makes tiles nevertheless, in shorter slices. */
const STARVED_MS = 2;
const WAIT_MS = 60;

/** What makes tiles; of the renderer only this is asked. */
interface TileMaker {
  prepare(ms: number): { lacked: boolean; isDone: boolean };
}

/** Makes tiles while the page has nothing else to do, so that a frame need only show them. */
export class IdleTiling {
  private cancel: (() => void) | null = null;

  /**
   * To be called after each frame. What was asked before and is still to come is not put off by it.
   *
   * @param maker asked only when it is time, so that it is the present one
   * @param redraw called when the last frame lacked something; once all lies still, a frame makes tiles itself, so that a
   * page that is never idle comes to its end too
   */
  afterFrame(maker: () => TileMaker, redraw: () => void): void {
    this.cancel ??= whenIdle((ms) => {
      this.cancel = null;
      const { lacked, isDone } = maker().prepare(ms);
      // The frame that follows asks for the rest.
      if (lacked) redraw();
      else if (!isDone) this.afterFrame(maker, redraw);
    });
  }

  stop(): void {
    this.cancel?.();
    this.cancel = null;
  }
}

/** @returns what takes the wish back */
function whenIdle(work: (ms: number) => void): () => void {
  // Not every browser tells when it is idle.
  if (typeof requestIdleCallback !== 'function') {
    const timer = setTimeout(work, 0, STARVED_MS);
    return () => clearTimeout(timer);
  }
  const asked = requestIdleCallback(
    (deadline) => work(deadline.didTimeout ? STARVED_MS : Math.min(SLICE_MS, deadline.timeRemaining())),
    { timeout: WAIT_MS },
  );
  return () => cancelIdleCallback(asked);
}
