import { madeAt } from '../../core/ledger/waited';
import { currentRequest } from '../jobs/currentRequest';

/** How long a write waited on its device before it was sent, in milliseconds. */
const WAITED_HEADER = 'x-oculent-waited';

/** @returns 0 where the request does not say */
export function waitedMs(request: Request): number {
  return Number(request.headers.get(WAITED_HEADER) ?? 0);
}

/**
 * When what the request tells of was done: earlier, where it waited for this machine to answer.
 * @returns `now` itself where it did not wait
 */
export function momentOfRequest(now = new Date()): Date {
  return madeAt(now, currentRequest.getStore()?.waitedMs ?? 0);
}
