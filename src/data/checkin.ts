import type { TrashTally } from '../core/checkin/chance';
import { type BagMeasure, type CountedBag, nominalSpread } from '../core/checkin/supply';
import { type UndoState, undoState } from '../core/ledger/history';
import { one, type Queries } from './engine/database';

/** One row of the bag ledger. */
export interface BagEntry {
  id: string;
  canvasId: string;
  happenedAt: string;
  /** An `assign` gives the bag `subject` to a line; a `take back` undoes a count or an assignment. */
  kind: 'count' | 'take back' | 'assign';
  line: number | null;
  label: string;
  drills: number;
  how: BagMeasure;
  /** Standard deviation in drills; null for the usual one of a nominal packet. */
  spread: number | null;
  subject: string | null;
  undoes: string | null;
  redoes: string | null;
}

type BagRow = Omit<BagEntry, 'canvasId' | 'happenedAt'>;

const COLUMNS = 'id, kind, line, label, drills, how, spread, subject, undoes, redoes';

/** Adds a row. @returns false where this id is in the ledger already, which then stays as it is */
export async function addBagEntry(queries: Queries, entry: BagEntry): Promise<boolean> {
  const added = await queries.query(
    `insert into bag_entry (${COLUMNS}, canvas_id, happened_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) on conflict (id) do nothing returning id`,
    [
      entry.id,
      entry.kind,
      entry.line,
      entry.label,
      entry.drills,
      entry.how,
      entry.spread,
      entry.subject,
      entry.undoes,
      entry.redoes,
      entry.canvasId,
      entry.happenedAt,
    ],
  );
  return added.length > 0;
}

export function findBagEntry(queries: Queries, canvasId: string, id: string): Promise<BagRow | null> {
  return one(queries, `select ${COLUMNS} from bag_entry where canvas_id = $1 and id = $2`, [canvasId, id]);
}

/** The bags that stand counted, oldest first, and what undo and redo would act on. */
export async function countedBags(
  queries: Queries,
  canvasId: string,
): Promise<{ bags: CountedBag[]; history: UndoState; standing: ReadonlySet<string> }> {
  const rows = await queries.query<BagRow>(
    `select ${COLUMNS} from bag_entry where canvas_id = $1 order by position`,
    [canvasId],
  );
  const bags = new Map<string, CountedBag>();
  const standing = new Set<string>();
  for (const row of rows) {
    if (row.kind === 'count') {
      const { id, line, label, drills, how } = row;
      bags.set(id, { id, line, label, drills, how, spread: row.spread ?? nominalSpread(drills) });
      standing.add(id);
    } else if (row.kind === 'assign') {
      const bag = bags.get(row.subject ?? '');
      if (bag) bag.line = row.line;
      standing.add(row.id);
    } else {
      const assigned = bags.get(row.subject ?? '');
      if (assigned) assigned.line = null;
      else bags.delete(row.undoes ?? '');
      standing.delete(row.undoes ?? '');
    }
  }
  return { bags: [...bags.values()], history: undoState(rows), standing };
}

/** Records pieces that went through the hand and those of them thrown out; a known id changes nothing. */
export async function addTrashRecord(
  queries: Queries,
  canvasId: string,
  record: TrashTally & { id: string },
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into trash_record (id, canvas_id, happened_at, handled, thrown) values ($1, $2, $3, $4, $5)
     on conflict (id) do nothing`,
    [record.id, canvasId, happenedAt, record.handled, record.thrown],
  );
}

export function trashRecords(queries: Queries, canvasId: string): Promise<TrashTally[]> {
  return queries.query('select handled, thrown from trash_record where canvas_id = $1 order by happened_at', [
    canvasId,
  ]);
}
