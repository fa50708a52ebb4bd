import type { StashItem } from '../core/stash/cover';
import { one, type Queries } from './engine/database';

/** Items that are read at once: a stash may have thousands, and the thread is held while they are. */
const PAGE = 300;

/** Items with what is there of each. @param which the item, code or shape to look for; without one, everything */
export async function stashItems(
  queries: Queries,
  which: { id?: string; code?: string; shape?: StashItem['shape'] } = {},
): Promise<StashItem[]> {
  const items: StashItem[] = [];
  for (;;) {
    const rows = await queries.query<StashItem>(
      `select i.id, i.code, i.name, i.hex, i.finish, i.shape,
              coalesce((select sum(m.drills) from stash_move m where m.item_id = i.id), 0)::int as drills
       from (select * from stash_item
             where deleted_at is null and ($1::uuid is null or id = $1) and ($2::text is null or code = $2)
               and ($3::text is null or shape = $3)
             order by created_at, id limit $4 offset $5) as i
       order by i.created_at, i.id`,
      [which.id ?? null, which.code ?? null, which.shape ?? null, PAGE, items.length],
    );
    items.push(...rows);
    if (rows.length < PAGE) return items;
  }
}

export async function countStashItems(queries: Queries): Promise<number> {
  const row = await one<{ n: number }>(
    queries,
    'select count(*)::int as n from stash_item where deleted_at is null',
  );
  return row!.n;
}

/** A known id changes nothing. @returns whether it was added */
export async function addStashItem(
  queries: Queries,
  item: Omit<StashItem, 'drills'>,
  createdAt: string,
): Promise<boolean> {
  const rows = await queries.query(
    `insert into stash_item (id, code, name, hex, finish, shape, created_at) values ($1, $2, $3, $4, $5, $6, $7)
     on conflict (id) do nothing returning id`,
    [item.id, item.code, item.name, item.hex, item.finish, item.shape, createdAt],
  );
  return rows.length > 0;
}

/** Says anew what an item is. @returns whether it was there */
export async function updateStashItem(queries: Queries, item: Omit<StashItem, 'drills'>): Promise<boolean> {
  const rows = await queries.query(
    `update stash_item set code = $2, name = $3, hex = $4, finish = $5, shape = $6
     where id = $1 and deleted_at is null returning id`,
    [item.id, item.code, item.name, item.hex, item.finish, item.shape],
  );
  return rows.length > 0;
}

/** Deletes an item with its drills; it is kept for a while. @returns whether it was there */
export async function deleteStashItem(queries: Queries, id: string, deletedAt: string): Promise<boolean> {
  const rows = await queries.query(
    'update stash_item set deleted_at = $2 where id = $1 and deleted_at is null returning id',
    [id, deletedAt],
  );
  return rows.length > 0;
}

/** A move of drills: they come (above 0) or go (below 0). */
export interface StashMove {
  id: string;
  itemId: string;
  drills: number;
  bagId: string | null;
  screenId?: string | null;
  undoes?: string | null;
  redoes?: string | null;
}

export async function addStashMove(queries: Queries, move: StashMove, happenedAt: string): Promise<void> {
  await queries.query(
    `insert into stash_move (id, item_id, happened_at, drills, bag_id, screen_id, undoes, redoes)
     values ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [
      move.id,
      move.itemId,
      happenedAt,
      move.drills,
      move.bagId,
      move.screenId ?? null,
      move.undoes ?? null,
      move.redoes ?? null,
    ],
  );
}

export function findStashMove(
  queries: Queries,
  id: string,
): Promise<{ id: string; itemId: string; drills: number; code: string } | null> {
  return one(
    queries,
    `select m.id, m.item_id as "itemId", m.drills, i.code
     from stash_move m join stash_item i on i.id = m.item_id where m.id = $1`,
    [id],
  );
}

/** What moves did, as far as a person is told before they are undone. */
export function stashFacts(
  queries: Queries,
  ids: readonly string[],
): Promise<{ id: string; code: string; drills: number }[]> {
  return queries.query(
    `select m.id, i.code, m.drills from stash_move m join stash_item i on i.id = m.item_id
     where m.id = any($1::uuid[])`,
    [ids],
  );
}

/**
 * Whether an item has fewer drills than none, which a move must not lead to.
 * @param id of a move of the item, or of a bag that took drills from it
 */
export async function isOverdrawn(queries: Queries, id: string): Promise<boolean> {
  const rows = await queries.query(
    `select item_id from stash_move
     where item_id in (select item_id from stash_move where id = $1 or bag_id = $1)
     group by item_id having sum(drills) < 0 limit 1`,
    [id],
  );
  return rows.length > 0;
}

/**
 * Puts drills back that a bag had taken out, when the bag is taken back; does nothing for other bags. An item that was
 * deleted meanwhile is there again, or its drills would be lost.
 */
export async function returnToStash(queries: Queries, bagId: string, happenedAt: string): Promise<void> {
  await queries.query(
    `insert into stash_move (id, item_id, happened_at, drills, bag_id)
     select gen_random_uuid(), item_id, $2, -sum(drills), bag_id from stash_move
     where bag_id = $1 group by item_id, bag_id having sum(drills) <> 0`,
    [bagId, happenedAt],
  );
  await queries.query(
    `update stash_item set deleted_at = null
     where deleted_at is not null and id in (select item_id from stash_move where bag_id = $1)`,
    [bagId],
  );
}

/** Takes the drills out again for a bag that is counted again under a new id. */
export async function takeAgainFromStash(
  queries: Queries,
  bagId: string,
  newBagId: string,
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into stash_move (id, item_id, happened_at, drills, bag_id)
     select gen_random_uuid(), item_id, $3, min(drills), $2 from stash_move
     where bag_id = $1 group by item_id`,
    [bagId, newBagId, happenedAt],
  );
}
