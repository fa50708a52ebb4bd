import type { DayLaid } from '../core/progress/progress';
import { one, type Queries } from './engine/database';

/** Drills laid less lifted, per calendar day of a time zone; what was laid before the canvas was kept here is of no day. @param zone IANA name, e.g. `Europe/Lisbon` */
export async function laidPerDay(queries: Queries, canvasId: string, zone: string): Promise<DayLaid[]> {
  return queries.query<DayLaid>(
    `select to_char(happened_at at time zone $2, 'YYYY-MM-DD') as day,
            sum(case kind when 'lay' then drills else -drills end)::int as drills
     from mark where canvas_id = $1 and not before group by 1 order by 1`,
    [canvasId, zone],
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
