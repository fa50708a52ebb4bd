import type { CellRect } from '../core/cells/chart';
import { boxAround } from '../core/cells/rect';
import type { Tick } from '../core/sections/ticks';
import type { Queries } from './engine/database';

/** Every tick of a canvas, oldest first. */
export async function ticksOf(queries: Queries, canvasId: string): Promise<Tick[]> {
  const rows = await queries.query<CellRect & { line: number; done: boolean; rects: CellRect[] | null }>(
    `select line, x, y, width, height, rects, done from area_tick where canvas_id = $1 order by position`,
    [canvasId],
  );
  return rows.map(({ line, done, rects, ...box }) => ({ line, done, rects: rects ?? [box] }));
}

export async function addTick(
  queries: Queries,
  canvasId: string,
  id: string,
  { line, rects, done }: Tick,
  happenedAt: string,
): Promise<void> {
  const { x, y, width, height } = boxAround(rects);
  const several = rects.length > 1 ? JSON.stringify(rects) : null;
  await queries.query(
    `insert into area_tick (id, canvas_id, happened_at, line, x, y, width, height, rects, done)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9::jsonb, $10)`,
    [id, canvasId, happenedAt, line, x, y, width, height, several, done],
  );
}
