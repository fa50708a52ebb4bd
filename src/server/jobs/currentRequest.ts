import { AsyncLocalStorage } from 'node:async_hooks';

/** What is known of the request that is being worked on. */
export interface CurrentRequest {
  /** Ends when nobody waits any more for its answer. */
  signal: AbortSignal;
  /** Whether its change was counted already, see `bumpRevision`. */
  counted: boolean;
  /** How long it waited on its device before it was sent, in milliseconds; see `momentOfRequest`. */
  waitedMs: number;
}

export const currentRequest = new AsyncLocalStorage<CurrentRequest>();
