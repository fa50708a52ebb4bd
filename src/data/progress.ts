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
  return queries.query<DayLaid>(
    `select to_char(happened_at at time zone $2, 'YYYY-MM-DD') as day,
            sum(case kind when 'lay' then drills else -drills end)::int as drills
     from mark m where canvas_id = $1 and not before and ($3::text is null or ${makerSql('m.screen_id')} = $3)
     group by 1 order by 1`,
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
