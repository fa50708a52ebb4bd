import type { Tick } from '../core/sections/ticks';
import type { Queries } from './engine/database';

/** Every tick of a canvas, oldest first. */
export function ticksOf(queries: Queries, canvasId: string): Promise<Tick[]> {
  return queries.query<Tick>(
    'select line, x, y, width, height, done from area_tick where canvas_id = $1 order by position',
    [canvasId],
  );
}

export async function addTick(
  queries: Queries,
  canvasId: string,
  id: string,
  { line, x, y, width, height, done }: Tick,
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into area_tick (id, canvas_id, happened_at, line, x, y, width, height, done)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [id, canvasId, happenedAt, line, x, y, width, height, done],
  );
}
