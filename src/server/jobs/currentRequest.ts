import { AsyncLocalStorage } from 'node:async_hooks';

/** Ends when nobody waits any more for the answer to the request that is being worked on. */
export const currentRequest = new AsyncLocalStorage<AbortSignal>();
