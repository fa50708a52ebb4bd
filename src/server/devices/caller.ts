import type { IncomingMessage } from 'node:http';
import type { Device } from '../../core/devices/device';
import type { JoinedBy } from '../../data/devices';

/** Who sends a request, as the door of the home network found out. */
export interface Caller {
  address: string;
  /** Null for one that has not joined. */
  device: (Device & { joinedBy: JoinedBy }) | null;
}

/** Callers by their request; what came over the loopback address has none. */
const KEY = Symbol.for('oculent caller');
type Marked = IncomingMessage & { [KEY]?: Caller };

export function markCaller(request: IncomingMessage, caller: Caller): void {
  (request as Marked)[KEY] = caller;
}

/** Null for a request of the machine itself. */
export function callerOf(request: IncomingMessage): Caller | null {
  return (request as Marked)[KEY] ?? null;
}
