import type { InFront } from '../core/sections/inFront';
import { one, type Queries } from './engine/database';

/** What was in front last, at whatever screen; null where nothing was yet. */
export async function inFrontOf(queries: Queries, canvasId: string): Promise<InFront | null> {
  return one<InFront>(queries, 'select section, line from in_front where canvas_id = $1', [canvasId]);
}

export async function putInFront(
  queries: Queries,
  canvasId: string,
  { section, line }: InFront,
  changedAt: string,
): Promise<void> {
  await queries.query(
    `insert into in_front (canvas_id, section, line, changed_at) values ($1, $2, $3, $4)
     on conflict (canvas_id) do update
     set section = excluded.section, line = excluded.line, changed_at = excluded.changed_at`,
    [canvasId, section, line, changedAt],
  );
}

/** Nothing is in front any more: its section has another number now. */
export async function forgetInFront(queries: Queries, canvasId: string): Promise<void> {
  await queries.query('delete from in_front where canvas_id = $1', [canvasId]);
}
