import type { Canvas } from '../core/canvas/canvas';
import { type Chart, chartFromBytes, chartToBytes, countDrills } from '../core/chart/chart';
import { one, type Queries } from './database';

export async function chartOf(
  queries: Queries,
  canvas: Pick<Canvas, 'id' | 'width' | 'height'>,
): Promise<Chart | null> {
  const row = await one<{ cells: Uint8Array }>(queries, 'select cells from chart where canvas_id = $1', [
    canvas.id,
  ]);
  return row && chartFromBytes(canvas.width, canvas.height, row.cells);
}

/** Stores a chart, in place of the one before. */
export async function putChart(queries: Queries, canvasId: string, chart: Chart): Promise<void> {
  await queries.query(
    `insert into chart (canvas_id, cells, drills) values ($1, $2, $3)
     on conflict (canvas_id) do update set cells = excluded.cells, drills = excluded.drills`,
    [canvasId, chartToBytes(chart), countDrills(chart)],
  );
}
