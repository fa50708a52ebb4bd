import type { FinishRecord } from '../core/finish/record';
import { one, type Queries } from './engine/database';

/** A row of the table `finish_entry`. */
export interface FinishRow {
  started_on: string | null;
  finished_on: string | null;
  minutes: number | null;
  checked: FinishRecord['checked'];
  sealing: FinishRecord['sealing'];
  border_mm: number;
  frame_width_mm: number | null;
  frame_height_mm: number | null;
  notes: string;
}

const COLUMNS =
  'started_on, finished_on, minutes, checked, sealing, border_mm, frame_width_mm, frame_height_mm, notes';

export function finishOfRow(row: FinishRow): FinishRecord {
  return {
    startedOn: row.started_on,
    finishedOn: row.finished_on,
    minutes: row.minutes,
    checked: row.checked,
    sealing: row.sealing,
    borderMm: row.border_mm,
    frame:
      row.frame_width_mm === null || row.frame_height_mm === null
        ? null
        : { widthMm: row.frame_width_mm, heightMm: row.frame_height_mm },
    notes: row.notes,
  };
}

/** The end of a canvas as it was told last; null where nobody did. */
export async function finishOf(queries: Queries, canvasId: string): Promise<FinishRecord | null> {
  const row = await one<FinishRow>(
    queries,
    `select ${COLUMNS} from finish_entry where canvas_id = $1 order by position desc limit 1`,
    [canvasId],
  );
  return row && finishOfRow(row);
}

export async function addFinish(
  queries: Queries,
  canvasId: string,
  id: string,
  record: FinishRecord,
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into finish_entry (id, canvas_id, happened_at, ${COLUMNS})
     values ($1, $2, $3, $4, $5, $6, $7::jsonb, $8, $9, $10, $11, $12)`,
    [
      id,
      canvasId,
      happenedAt,
      record.startedOn,
      record.finishedOn,
      record.minutes,
      JSON.stringify(record.checked),
      record.sealing,
      record.borderMm,
      record.frame?.widthMm ?? null,
      record.frame?.heightMm ?? null,
      record.notes,
    ],
  );
}

/** When a canvas was marked first and last, as moments; null where nothing was. */
export async function markedBetween(
  queries: Queries,
  canvasId: string,
): Promise<{ first: string | null; last: string | null }> {
  const row = await one<{ first: string | null; last: string | null }>(
    queries,
    'select min(happened_at) as first, max(happened_at) as last from mark where canvas_id = $1 and not before',
    [canvasId],
  );
  return row ?? { first: null, last: null };
}

/** Minutes at the bench in sittings that ended and stand, and how many they are. */
export async function benchTime(
  queries: Queries,
  canvasId: string,
): Promise<{ minutes: number; sittings: number }> {
  const row = await one<{ minutes: number; sittings: number }>(
    queries,
    `select coalesce(sum(greatest(0, round(extract(epoch from
              coalesce(c.ended_at, e.ended_at) - coalesce(c.started_at, s.started_at)) / 60))), 0)::int as minutes,
            count(*)::int as sittings
     from sitting s join sitting_end e on e.sitting_id = s.id
     left join lateral (select * from sitting_edit c where c.sitting_id = s.id
                        order by position desc limit 1) c on true
     where s.canvas_id = $1 and not coalesce(c.removed, false)`,
    [canvasId],
  );
  return row ?? { minutes: 0, sittings: 0 };
}

/** Squares of repairs of the chart that stand, each with the moment of the repair. */
export async function repairedSquares(
  queries: Queries,
  canvasId: string,
): Promise<{ happenedAt: string; runs: number[] }[]> {
  const rows = await queries.query<{ happenedAt: string; edits: { runs: number[] }[] }>(
    `select e.happened_at as "happenedAt", e.edits from chart_edit e
     where e.canvas_id = $1 and e.undoes is null and e.kind = 'repair'
       and (e.redoes is not null or not exists (select 1 from chart_edit u where u.undoes = e.id))
     order by e.position`,
    [canvasId],
  );
  return rows.map(({ happenedAt, edits }) => ({
    happenedAt,
    runs: edits.flatMap(({ runs }) => runs),
  }));
}
