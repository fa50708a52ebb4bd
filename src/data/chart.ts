import type { Canvas } from '../core/canvas/canvas';
import { type Chart, chartFromBytes, chartToBytes } from '../core/cells/chart';
import type { CellEdit } from '../core/chart/edit';
import { countWanted } from '../core/progress/progress';
import { bitmapOf } from './bench';
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

/** Cells that want a drill; null without a chart. */
export async function drillsOf(queries: Queries, canvasId: string): Promise<number | null> {
  const row = await one<{ drills: number }>(queries, 'select drills from chart where canvas_id = $1', [
    canvasId,
  ]);
  return row?.drills ?? null;
}

/** Stores a chart, in place of the one before. */
export async function putChart(queries: Queries, canvasId: string, chart: Chart): Promise<void> {
  const laid = await bitmapOf(queries, canvasId, chart.cells.length);
  await queries.query(
    `insert into chart (canvas_id, cells, drills) values ($1, $2, $3)
     on conflict (canvas_id) do update set cells = excluded.cells, drills = excluded.drills`,
    [canvasId, chartToBytes(chart), countWanted(chart, laid)],
  );
}

/** A change in the ledger: what was set, and what stood there before. */
export interface ChartEditEntry {
  id: string;
  kind: 'repair' | 'finish';
  edits: CellEdit[];
  before: CellEdit[];
  /** For a finish: drills that it took off the count of its colour. Null for older ones: as many as squares. */
  moved: number | null;
  /** The change that this one takes back, or makes again. */
  undoes: string | null;
  redoes: string | null;
}

export async function addChartEdit(
  queries: Queries,
  canvasId: string,
  screenId: string | null,
  entry: ChartEditEntry,
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into chart_edit (id, canvas_id, screen_id, happened_at, kind, edits, before, undoes, redoes, moved)
     values ($1, $2, $3, $4, $5, $6::jsonb, $7::jsonb, $8, $9, $10)`,
    [
      entry.id,
      canvasId,
      screenId,
      happenedAt,
      entry.kind,
      JSON.stringify(entry.edits),
      JSON.stringify(entry.before),
      entry.undoes,
      entry.redoes,
      entry.moved,
    ],
  );
}

export function findChartEdit(
  queries: Queries,
  canvasId: string,
  id: string,
): Promise<ChartEditEntry | null> {
  return one<ChartEditEntry>(
    queries,
    'select id, kind, edits, before, moved, undoes, redoes from chart_edit where canvas_id = $1 and id = $2',
    [canvasId, id],
  );
}

/** The newest change of a finish that stands; null where there is none. */
export function lastFinish(queries: Queries, canvasId: string): Promise<ChartEditEntry | null> {
  return one<ChartEditEntry>(
    queries,
    `select e.id, e.kind, e.edits, e.before, e.undoes, e.redoes from chart_edit e
     left join chart_edit u on u.undoes = e.id
     where e.canvas_id = $1 and e.kind = 'finish' and e.undoes is null and u.id is null
     order by e.position desc limit 1`,
    [canvasId],
  );
}

/** When a change was made. */
export async function momentOfEdit(queries: Queries, id: string): Promise<string | null> {
  const row = await one<{ at: string }>(queries, 'select happened_at as at from chart_edit where id = $1', [
    id,
  ]);
  return row?.at ?? null;
}
