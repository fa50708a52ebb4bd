import { type BagRow, type DatedBagRow, standingBags } from '../core/checkin/bagLedger';
import type { TrashTally } from '../core/checkin/chance';
import { deviceNameSql } from './deviceName';
import { manyRows, momentSql, one, type Queries } from './engine/database';

/** A bag entry with where and when it was made. */
export interface BagEntry extends DatedBagRow {
  canvasId: string;
}

const WRITTEN = 'id, kind, line, label, drills, how, spread, shared_errors, origin, subject, undoes, redoes';
const COLUMNS = WRITTEN.replace('shared_errors', 'shared_errors as shared');

/** Adds a row to the bag ledger. */
export async function addBagEntry(queries: Queries, entry: BagEntry): Promise<void> {
  await queries.query(
    `insert into bag_entry (${WRITTEN}, canvas_id, screen_id, happened_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8::jsonb, $9, $10, $11, $12, $13, $14, $15)`,
    [
      entry.id,
      entry.kind,
      entry.line,
      entry.label,
      entry.drills,
      entry.how,
      entry.spread,
      JSON.stringify(entry.shared),
      entry.origin,
      entry.subject,
      entry.undoes,
      entry.redoes,
      entry.canvasId,
      entry.screenId,
      entry.happenedAt,
    ],
  );
}

export function findBagEntry(queries: Queries, canvasId: string, id: string): Promise<BagRow | null> {
  return one(queries, `select ${COLUMNS} from bag_entry where canvas_id = $1 and id = $2`, [canvasId, id]);
}

/** What bag entries did, as far as a person is told before they are taken back. */
export function bagFacts(
  queries: Queries,
  ids: readonly string[],
): Promise<Pick<BagRow, 'id' | 'kind' | 'line' | 'label' | 'drills'>[]> {
  return queries.query('select id, kind, line, label, drills from bag_entry where id = any($1::uuid[])', [
    ids,
  ]);
}

/** The bag ledger of a canvas, oldest first. */
export function bagRows(queries: Queries, canvasId: string): Promise<DatedBagRow[]> {
  return manyRows(
    queries,
    `select ${COLUMNS}, ${momentSql('happened_at')} as "happenedAt", screen_id as "screenId",
            ${deviceNameSql('bag_entry.screen_id')} as device
     from bag_entry where canvas_id = $1 order by position`,
    [canvasId],
  );
}

/** The bags that stand counted, oldest first, and the entries that were not taken back. */
export async function countedBags(
  queries: Queries,
  canvasId: string,
): Promise<ReturnType<typeof standingBags>> {
  return standingBags(await bagRows(queries, canvasId));
}

/** A record of bad drills; it may take the place of an earlier one. */
export interface TrashEntry extends TrashTally {
  id: string;
  replaces: string | null;
  /** It was a mistake; kept, but not reckoned with. */
  removed: boolean;
}

/** Records pieces that went through the hand and those of them thrown out. */
export async function addTrashRecord(
  queries: Queries,
  canvasId: string,
  record: TrashEntry,
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into trash_record (id, canvas_id, happened_at, handled, thrown, replaces, removed)
     values ($1, $2, $3, $4, $5, $6, $7)`,
    [record.id, canvasId, happenedAt, record.handled, record.thrown, record.replaces, record.removed],
  );
}

/** The records of bad drills as they stand, removed ones among them, oldest first. */
export function trashEntries(
  queries: Queries,
  canvasId: string,
): Promise<(TrashTally & { id: string; happenedAt: string; removed: boolean })[]> {
  return queries.query(
    `select id, happened_at as "happenedAt", handled, thrown, removed from trash_record r
     where canvas_id = $1 and not exists (select 1 from trash_record n where n.replaces = r.id)
     order by happened_at, id`,
    [canvasId],
  );
}

/** What the records of bad drills tell. */
export async function trashRecords(queries: Queries, canvasId: string): Promise<TrashTally[]> {
  return (await trashEntries(queries, canvasId)).filter(({ removed }) => !removed);
}
