import { setImmediate } from 'node:timers/promises';
import type { MarkKind } from '../core/bench/marking';
import type { PackedMarks } from '../core/progress/packedMarks';
import type { DayLaid } from '../core/progress/progress';
import { deviceNameSql, makerSql } from './deviceName';
import { one, type Queries } from './engine/database';

/**
 * Drills laid less lifted, per calendar day of a time zone; what was laid before the canvas was kept here is of no day.
 * @param zone IANA name, e.g. `Europe/Lisbon`
 * @param maker the id of a device, or `desk`; null for all
 */
export async function laidPerDay(
  queries: Queries,
  canvasId: string,
  zone: string,
  maker: string | null = null,
): Promise<DayLaid[]> {
  // Zones differ by quarters of an hour: what was laid in the same one is of the same day everywhere, and far fewer times
  // are put into the zone.
  return queries.query<DayLaid>(
    `select to_char(quarter at time zone $2, 'YYYY-MM-DD') as day, sum(drills)::int as drills from (
       select date_bin('15 minutes', happened_at, timestamptz '2000-01-01 00:00:00Z') as quarter,
              sum(case kind when 'lay' then drills else -drills end) as drills
       from mark m where canvas_id = $1 and not before and ($3::text is null or ${makerSql('m.screen_id')} = $3)
       group by 1
     ) as by_quarter group by 1 order by 1`,
    [canvasId, zone, maker],
  );
}

/** Who has marked on a canvas: a device by its id, or `desk`, with its name and the drills laid less lifted. */
export interface Maker {
  id: string;
  name: string;
  drills: number;
}

/** All who have marked on a canvas, those who laid most first. */
export function makersOf(queries: Queries, canvasId: string): Promise<Maker[]> {
  return queries.query<Maker>(
    `select id, name, sum(drills)::int as drills from (
       select ${makerSql('m.screen_id')} as id, coalesce(${deviceNameSql('m.screen_id')}, 'Desk') as name,
              sum(case m.kind when 'lay' then m.drills else -m.drills end) as drills
       from mark m where m.canvas_id = $1 and not m.before group by m.screen_id
     ) as by_screen group by id, name order by drills desc, name`,
    [canvasId],
  );
}

/** Drills that were laid before the canvas was kept here. */
export async function laidBefore(queries: Queries, canvasId: string): Promise<number> {
  const row = await one<{ drills: number }>(
    queries,
    `select coalesce(sum(case kind when 'lay' then drills else -drills end), 0)::int as drills
     from mark where canvas_id = $1 and before`,
    [canvasId],
  );
  return row?.drills ?? 0;
}

/** So many rows are read before others have their turn. */
const PAGE = 2000;

/**
 * All marks of a canvas in their order, but those that were laid before it was kept here where `before` is false.
 * @param maker the id of a device, or `desk`; null for all
 */
export async function packedMarks(
  queries: Queries,
  canvasId: string,
  { before, maker = null }: { before: boolean; maker?: string | null },
): Promise<PackedMarks> {
  const pages: { kind: MarkKind; cells: Uint8Array; happenedAt: string; sittingId: string | null }[][] = [];
  for (let after = 0; ; ) {
    const rows = await queries.query<{
      kind: MarkKind;
      cells: Uint8Array;
      happenedAt: string;
      sittingId: string | null;
      position: number;
    }>(
      `select m.kind, m.cells, m.happened_at as "happenedAt", m.sitting_id as "sittingId", m.position::int as position
       from mark m where m.canvas_id = $1 and m.position > $2 and (not m.before or $4)
         and ($5::text is null or ${makerSql('m.screen_id')} = $5)
       order by m.position limit $3`,
      [canvasId, after, PAGE, before, maker],
    );
    pages.push(rows);
    if (rows.length < PAGE) break;
    after = rows.at(-1)!.position;
    await setImmediate();
  }
  const count = pages.reduce((sum, page) => sum + page.length, 0);
  const words = pages.reduce(
    (sum, page) => sum + page.reduce((all, { cells }) => all + cells.byteLength / 4, 0),
    0,
  );
  const packed: PackedMarks = {
    runs: new Uint32Array(words),
    ends: new Uint32Array(count),
    at: new Float64Array(count),
    lays: new Uint8Array(count),
    sitting: new Int32Array(count).fill(-1),
    sittings: [],
  };
  const known = new Map<string, number>();
  let [i, to] = [0, 0];
  for (const page of pages) {
    for (const { kind, cells, happenedAt, sittingId } of page) {
      const view = new DataView(cells.buffer, cells.byteOffset, cells.byteLength);
      for (let at = 0; at < cells.byteLength; at += 4) packed.runs[to++] = view.getUint32(at, true);
      packed.ends[i] = to;
      packed.at[i] = Date.parse(happenedAt);
      packed.lays[i] = kind === 'lay' ? 1 : 0;
      if (sittingId !== null) {
        if (!known.has(sittingId)) known.set(sittingId, packed.sittings.push(sittingId) - 1);
        packed.sitting[i] = known.get(sittingId)!;
      }
      i++;
    }
    await setImmediate();
  }
  return packed;
}

/** By when a canvas shall be done, `YYYY-MM-DD`; null where nobody said. */
export async function finishByOf(queries: Queries, canvasId: string): Promise<string | null> {
  const row = await one<{ finishBy: string }>(
    queries,
    'select finish_by as "finishBy" from progress_wish where canvas_id = $1',
    [canvasId],
  );
  return row?.finishBy ?? null;
}

/** @param finishBy null where there is no wish any more */
export async function putFinishBy(
  queries: Queries,
  canvasId: string,
  finishBy: string | null,
): Promise<void> {
  if (finishBy === null) {
    await queries.query('delete from progress_wish where canvas_id = $1', [canvasId]);
    return;
  }
  await queries.query(
    `insert into progress_wish (canvas_id, finish_by, happened_at) values ($1, $2, $3)
     on conflict (canvas_id) do update
     set finish_by = excluded.finish_by, happened_at = excluded.happened_at`,
    [canvasId, finishBy, new Date().toISOString()],
  );
}
