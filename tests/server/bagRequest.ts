import { randomUUID } from 'node:crypto';
import type { BagRequest } from '../../src/server/checkin/writes';

/** A bag as a request asks for it, with sensible values where a test does not care. */
export function bagRequest(more: Partial<BagRequest>): BagRequest {
  return {
    id: randomUUID(),
    line: null,
    label: '',
    drills: null,
    how: 'nominal',
    spread: null,
    shared: [],
    origin: null,
    assigns: null,
    changes: null,
    removes: null,
    undoes: null,
    redoes: null,
    ...more,
  };
}
