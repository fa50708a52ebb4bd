import type { DeletedKind, DeletedThing } from '../core/shelf/deleted';
import { bringBackCanvas, removeCanvas } from './canvas';
import type { Queries } from './engine/database';

/** What was deleted and is still kept, the newest first. */
export function deletedThings(queries: Queries, kind: DeletedKind | null = null): Promise<DeletedThing[]> {
  return queries.query(
    `select id, kind, title, deleted_at as "deletedAt" from (
       select id, 'canvas' as kind, title, deleted_at from canvas where not arriving
       union all select id, 'case', name, deleted_at from storage
       union all select i.id, 'stash', concat_ws(' ', i.code, nullif(i.name, '')), i.deleted_at from stash_item i
     ) thing where deleted_at is not null and ($1::text is null or kind = $1) order by deleted_at desc`,
    [kind],
  );
}

/** Puts back what was deleted. @returns what it was; null where it is not there */
export async function bringBack(queries: Queries, id: string): Promise<DeletedKind | null> {
  if (await bringBackCanvas(queries, id)) return 'canvas';
  for (const [table, kind] of [
    ['storage', 'case'],
    ['stash_item', 'stash'],
  ] as const) {
    const rows = await queries.query(
      `update ${table} set deleted_at = null where id = $1 and deleted_at is not null returning id`,
      [id],
    );
    if (rows.length > 0) return kind;
  }
  return null;
}

/** Removes for good what was deleted before a moment, or one deleted thing. @returns how many */
export async function emptyDeleted(
  queries: Queries,
  { before, id = null }: { before: string; id?: string | null },
): Promise<number> {
  const ripe = `deleted_at is not null and case when $2::uuid is null then deleted_at < $1 else id = $2 end`;
  const canvases = await queries.query<{ id: string }>(
    `update canvas set arriving = true where not arriving and ${ripe} returning id`,
    [before, id],
  );
  let removed = canvases.length;
  for (const canvas of canvases) await removeCanvas(queries, canvas.id);
  for (const table of ['storage', 'stash_item']) {
    const rows = await queries.query(`delete from ${table} where ${ripe} returning id`, [before, id]);
    removed += rows.length;
  }
  if (id === null) {
    await emptyWithdrawn(queries, before);
    await queries.query('delete from canvas_photo where removed_at < $1', [before]);
    await queries.query('delete from reading_photo where removed_at < $1', [before]);
  }
  return removed;
}

/** Entries of an inspection that were taken out of the record before a moment; one that was corrected since goes with it. */
async function emptyWithdrawn(queries: Queries, before: string): Promise<void> {
  await queries.query(
    `with recursive gone as (
       select entry_id as id from inspection_withdrawal where happened_at < $1
       union select e.replaces from inspection_entry e join gone on gone.id = e.id where e.replaces is not null)
     delete from inspection_entry where id in (select id from gone)`,
    [before],
  );
}
