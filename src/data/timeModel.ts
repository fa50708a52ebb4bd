import type { CellRuns } from '../core/cells/cellRuns';
import { runsFromBytes } from './bench';
import { deviceNameSql, makerSql } from './deviceName';
import { one, type Queries } from './engine/database';

/** A sitting that has ended, with what was laid and lifted in it. */
export interface SittingMarks {
  canvasId: string;
  minutes: number;
  marks: { kind: 'lay' | 'lift'; runs: CellRuns }[];
}

/** A word that changes whenever a sitting or a mark does. */
export async function sittingsStamp(queries: Queries): Promise<string> {
  const row = await one<{ stamp: string }>(
    queries,
    `select concat_ws('-', (select max(position) from mark), (select count(*) from sitting_end),
            (select max(position) from sitting_edit), (select count(*) from canvas),
            (select max(position) from chart_edit)) as stamp`,
  );
  return row!.stamp;
}

/**
 * The newest sittings on canvases that have a chart, as they were corrected last, oldest first.
 * @param limit so many at most
 * @param maker of this device by its id, or of the machine itself (`desk`); null for all
 */
export async function lastSittings(
  queries: Queries,
  limit: number,
  maker: string | null = null,
): Promise<SittingMarks[]> {
  const sittings = await queries.query<{ id: string; canvasId: string; minutes: number }>(
    `select s.id, s.canvas_id as "canvasId",
            extract(epoch from coalesce(c.ended_at, e.ended_at) - coalesce(c.started_at, s.started_at))::float / 60 as minutes
     from sitting s
     join sitting_end e on e.sitting_id = s.id
     join canvas k on k.id = s.canvas_id and not k.arriving and k.deleted_at is null
     join chart h on h.canvas_id = s.canvas_id
     left join lateral (select * from sitting_edit c where c.sitting_id = s.id
                        order by c.position desc limit 1) c on true
     where not coalesce(c.removed, false) and ($2::text is null or ${makerSql('s.screen_id')} = $2)
     order by coalesce(c.started_at, s.started_at) desc limit $1`,
    [limit, maker],
  );
  const marks = await queries.query<{ sittingId: string; kind: 'lay' | 'lift'; cells: Uint8Array }>(
    `select sitting_id as "sittingId", kind, cells from mark
     where sitting_id = any($1::uuid[]) and not before order by position`,
    [sittings.map(({ id }) => id)],
  );
  const bySitting = new Map<string, SittingMarks['marks']>(sittings.map(({ id }) => [id, []]));
  for (const { sittingId, kind, cells } of marks) {
    bySitting.get(sittingId)!.push({ kind, runs: runsFromBytes(cells) });
  }
  return sittings
    .map(({ id, canvasId, minutes }) => ({ canvasId, minutes, marks: bySitting.get(id)! }))
    .reverse();
}

/** Who has timed sittings that ended: devices by their id, and `desk`, by name. */
export function sittingMakers(queries: Queries): Promise<{ id: string; name: string }[]> {
  return queries.query(
    `select distinct ${makerSql('s.screen_id')} as id, coalesce(${deviceNameSql('s.screen_id')}, 'Desk') as name
     from sitting s join sitting_end e on e.sitting_id = s.id order by name, id`,
  );
}
