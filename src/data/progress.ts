import type { DayLaid } from '../core/progress/progress';
import type { Queries } from './engine/database';

/** Drills laid less lifted, per calendar day of a time zone. @param zone IANA name, e.g. `Europe/Lisbon` */
export async function laidPerDay(queries: Queries, canvasId: string, zone: string): Promise<DayLaid[]> {
  return queries.query<DayLaid>(
    `select to_char(happened_at at time zone $2, 'YYYY-MM-DD') as day,
            sum(case kind when 'lay' then drills else -drills end)::int as drills
     from mark where canvas_id = $1 group by 1 order by 1`,
    [canvasId, zone],
  );
}
