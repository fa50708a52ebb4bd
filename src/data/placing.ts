import { orderTips } from '../core/placing/tips';
import type { Database, Queries } from './engine/database';

/** The tips on the user's pens, the single placer always among them. */
export async function ownTips(queries: Queries): Promise<number[]> {
  const rows = await queries.query<{ drills: number }>('select drills from pen_tip');
  return orderTips(rows.map((row) => row.drills));
}

export async function putOwnTips(database: Database, tips: readonly number[]): Promise<number[]> {
  const ordered = orderTips(tips);
  await database.transaction(async (queries) => {
    await queries.query('delete from pen_tip');
    for (const drills of ordered) await queries.query('insert into pen_tip (drills) values ($1)', [drills]);
  });
  return ordered;
}
