import type { Canvas } from '../core/canvas/canvas';
import { type Chart, chartFromBytes, chartToBytes, countDrills } from '../core/cells/chart';
import type { CellEdit } from '../core/chart/edit';
import { one, type Queries } from './engine/database';

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

/** A change in the ledger: what was set, and what stood there before. */
export interface ChartEditEntry {
  id: string;
  kind: 'repair' | 'finish';
  edits: CellEdit[];
  before: CellEdit[];
  /** The change that this one takes back. */
  undoes: string | null;
}

/** @returns false where this id is in the ledger already, which then stays as it is */
export async function addChartEdit(
  queries: Queries,
  canvasId: string,
  entry: ChartEditEntry,
  happenedAt: string,
): Promise<boolean> {
  const added = await queries.query(
    `insert into chart_edit (id, canvas_id, happened_at, kind, edits, before, undoes)
     values ($1, $2, $3, $4, $5::jsonb, $6::jsonb, $7) on conflict (id) do nothing returning id`,
    [
      entry.id,
      canvasId,
      happenedAt,
      entry.kind,
      JSON.stringify(entry.edits),
      JSON.stringify(entry.before),
      entry.undoes,
    ],
  );
  return added.length > 0;
}

/** The newest change of a finish that was not taken back; null where there is none. */
export function lastFinish(queries: Queries, canvasId: string): Promise<ChartEditEntry | null> {
  return one<ChartEditEntry>(
    queries,
    `select e.id, e.kind, e.edits, e.before, e.undoes from chart_edit e
     left join chart_edit u on u.undoes = e.id
     where e.canvas_id = $1 and e.kind = 'finish' and e.undoes is null and u.id is null
     order by e.position desc limit 1`,
    [canvasId],
  );
}

export async function chartEditKnown(queries: Queries, id: string): Promise<boolean> {
  return (await one(queries, 'select id from chart_edit where id = $1', [id])) !== null;
}
