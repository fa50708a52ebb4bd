/** How a turn is asked for. */
interface Asking {
  /** Takes it from whoever has it. A tab that the browser put to sleep keeps its turn and does nothing with it. */
  byForce?: boolean;
  /** Gives up waiting. */
  signal?: AbortSignal;
  /** Told where another tab took the turn by force. */
  lost?: () => void;
}

/**
 * Runs work while no other tab of this browser runs work of that name, after those that asked before.
 * @returns once it is done, given up or lost
 */
export async function takeTurn(
  locks: Pick<LockManager, 'request'>,
  name: string,
  work: () => Promise<void>,
  { byForce = false, signal, lost }: Asking = {},
): Promise<void> {
  let done = false;
  let has = false;
  try {
    await locks.request(name, byForce ? { steal: true } : signal ? { signal } : {}, async () => {
      has = true;
      await work();
      done = true;
    });
  } catch (error) {
    // Given up in the very moment in which it came, it may be ended though the work has begun.
    const isGivenUp = signal?.aborted === true && (!has || error === signal.reason);
    if (!isGivenUp && !(error instanceof DOMException && error.name === 'AbortError')) throw error;
    if (has && !done) lost?.();
  }
}
