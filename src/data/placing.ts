import { changedTips, type OwnTip, tipsFor } from '../core/placing/tips';
import type { PlacingWish } from '../core/placing/wish';
import { type Database, one, type Queries } from './engine/database';

/** The tips in the user's pen case, by size. */
export async function ownTips(queries: Queries): Promise<OwnTip[]> {
  return queries.query('select drills as size, shape, pen, worn from pen_tip order by drills, shape, pen');
}

/** Sizes of the tips that do for drills of a shape, the single placer always among them. */
export async function tipSizes(queries: Queries, shape: 'square' | 'round'): Promise<number[]> {
  return tipsFor(await ownTips(queries), shape);
}

/**
 * Replaces all tips. Of two that are alike in size, shape and pen the last holds.
 * @param before what the user saw; given, only what differs from it is changed
 */
export async function putOwnTips(
  database: Database,
  tips: readonly OwnTip[],
  before?: readonly OwnTip[],
): Promise<OwnTip[]> {
  const single: OwnTip = { size: 1, shape: 'both', pen: '', worn: false };
  return database.transaction(async (queries) => {
    const wish = before ? changedTips(await ownTips(queries), before, tips) : tips;
    const all = wish.some(({ size }) => size === 1) ? wish : [single, ...wish];
    await queries.query('delete from pen_tip');
    for (const { size, shape, pen, worn } of all) {
      await queries.query(
        `insert into pen_tip (drills, shape, pen, worn) values ($1, $2, $3, $4)
         on conflict (drills, shape, pen) do update set worn = excluded.worn`,
        [size, shape, pen, worn],
      );
    }
    return ownTips(queries);
  });
}

export interface PlacingWishRow {
  goal: PlacingWish['goal'];
  direction: PlacingWish['direction'];
  turn_worth: number;
  staggered: boolean;
  passes: PlacingWish['passes'];
  tip_by_tip: boolean;
  singles_above: number | null;
  longest: number | null;
  edge_singles: boolean;
  school: PlacingWish['school'];
  own_order: number[];
}

const COLUMNS = [
  'goal',
  'direction',
  'turn_worth',
  'staggered',
  'passes',
  'tip_by_tip',
  'singles_above',
  'longest',
  'edge_singles',
  'school',
  'own_order',
] as const;

/** A row of the table `placing_wish` as a wish. */
export function placingWishOfRow(row: PlacingWishRow): PlacingWish {
  return {
    goal: row.goal,
    direction: row.direction,
    turnWorth: row.turn_worth,
    staggered: row.staggered,
    passes: row.passes,
    tipByTip: row.tip_by_tip,
    singlesAbove: row.singles_above,
    longest: row.longest,
    edgeSingles: row.edge_singles,
    school: row.school,
    ownOrder: row.own_order,
  };
}

/** How the user likes to lay on a canvas; null before he says. */
export async function placingWishOf(queries: Queries, canvasId: string): Promise<PlacingWish | null> {
  const row = await one<PlacingWishRow>(
    queries,
    `select ${COLUMNS.join(', ')} from placing_wish where canvas_id = $1`,
    [canvasId],
  );
  return row && placingWishOfRow(row);
}

export async function putPlacingWish(queries: Queries, canvasId: string, wish: PlacingWish): Promise<void> {
  const places = COLUMNS.map((_, i) => `$${i + 2}`).join(', ');
  const set = COLUMNS.map((name) => `${name} = excluded.${name}`).join(', ');
  await queries.query(
    `insert into placing_wish (canvas_id, ${COLUMNS.join(', ')}) values ($1, ${places})
     on conflict (canvas_id) do update set ${set}`,
    [
      canvasId,
      wish.goal,
      wish.direction,
      wish.turnWorth,
      wish.staggered,
      wish.passes,
      wish.tipByTip,
      wish.singlesAbove,
      wish.longest,
      wish.edgeSingles,
      wish.school,
      JSON.stringify(wish.ownOrder),
    ],
  );
}
