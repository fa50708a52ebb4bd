import type { Storage, Tray } from '../core/storage/storage';
import type { Queries } from './engine/database';

/** Cases that the user owns, the oldest first. @param ids those to look for; null for every one */
export async function storagesOf(queries: Queries, ids: readonly string[] | null = null): Promise<Storage[]> {
  const rows = await queries.query<{ id: string; name: string; packing_share: number; trays: Tray[] }>(
    `select id, name, packing_share, trays from storage
     where deleted_at is null and ($1::uuid[] is null or id = any($1)) order by created_at, id`,
    [ids],
  );
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    packingShare: row.packing_share,
    trays: row.trays,
  }));
}

/** Adds a case or puts the new drawing in the place of the old one; one that was deleted is there again. */
export async function putStorage(queries: Queries, storage: Storage, createdAt: string): Promise<void> {
  await queries.query(
    `insert into storage (id, name, packing_share, trays, created_at) values ($1, $2, $3, $4::jsonb, $5)
     on conflict (id) do update
     set name = excluded.name, packing_share = excluded.packing_share, trays = excluded.trays, deleted_at = null`,
    [storage.id, storage.name, storage.packingShare, JSON.stringify(storage.trays), createdAt],
  );
}

/** Deletes a case; it is kept for a while. @returns whether it was there */
export async function deleteStorage(queries: Queries, id: string, deletedAt: string): Promise<boolean> {
  const rows = await queries.query(
    'update storage set deleted_at = $2 where id = $1 and deleted_at is null returning id',
    [id, deletedAt],
  );
  return rows.length > 0;
}

/** A slot in use: which colour of which canvas is in it. */
export interface TakenSlot {
  storageId: string;
  slot: string;
  canvasId: string;
  title: string;
  line: number;
  code: string | null;
}

/** Slots in use, by whatever canvas. @param storageIds cases to look into; null for every one */
export function takenSlots(
  queries: Queries,
  storageIds: readonly string[] | null = null,
): Promise<TakenSlot[]> {
  return queries.query<TakenSlot>(
    `select a.storage_id as "storageId", a.slot, a.canvas_id as "canvasId", c.title, a.line, l.code
     from allotment a join canvas c on c.id = a.canvas_id
     left join legend_line l on l.canvas_id = a.canvas_id and l.line = a.line
     where $1::uuid[] is null or a.storage_id = any($1)
     order by a.storage_id, a.canvas_id, a.line`,
    [storageIds],
  );
}

/** How many slots of each case other canvases use, by case. */
export async function slotsOfOthers(queries: Queries, canvasId: string): Promise<Map<string, number>> {
  const rows = await queries.query<{ id: string; slots: number }>(
    `select storage_id as id, count(*)::int as slots from allotment
     where canvas_id <> $1 group by storage_id`,
    [canvasId],
  );
  return new Map(rows.map(({ id, slots }) => [id, slots]));
}
