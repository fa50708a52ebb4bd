import type { CountedBag } from '../core/checkin/supply';
import { type UndoState, undoState } from '../core/ledger/history';
import { one, type Queries } from './database';

/** One row of the bag ledger. */
export interface BagEntry {
  id: string;
  canvasId: string;
  happenedAt: string;
  kind: 'count' | 'take back';
  line: number | null;
  label: string;
  drills: number;
  undoes: string | null;
  redoes: string | null;
}

interface BagRow {
  id: string;
  kind: BagEntry['kind'];
  line: number | null;
  label: string;
  drills: number;
  undoes: string | null;
  redoes: string | null;
}

/** Adds a row. @returns false where this id is in the ledger already, which then stays as it is */
export async function addBagEntry(queries: Queries, entry: BagEntry): Promise<boolean> {
  const added = await queries.query(
    `insert into bag_entry (id, canvas_id, happened_at, kind, line, label, drills, undoes, redoes)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9) on conflict (id) do nothing returning id`,
    [
      entry.id,
      entry.canvasId,
      entry.happenedAt,
      entry.kind,
      entry.line,
      entry.label,
      entry.drills,
      entry.undoes,
      entry.redoes,
    ],
  );
  return added.length > 0;
}

export function findBagEntry(queries: Queries, canvasId: string, id: string): Promise<BagRow | null> {
  return one(
    queries,
    'select id, kind, line, label, drills, undoes, redoes from bag_entry where canvas_id = $1 and id = $2',
    [canvasId, id],
  );
}

/** The bags that stand counted, oldest first, and what undo and redo would act on. */
export async function countedBags(
  queries: Queries,
  canvasId: string,
): Promise<{ bags: CountedBag[]; history: UndoState }> {
  const rows = await queries.query<BagRow>(
    `select id, kind, line, label, drills, undoes, redoes from bag_entry
     where canvas_id = $1 order by position`,
    [canvasId],
  );
  const bags = new Map<string, CountedBag>();
  for (const row of rows) {
    if (row.kind === 'count') {
      bags.set(row.id, { id: row.id, line: row.line, label: row.label, drills: row.drills });
    } else if (row.undoes !== null) {
      bags.delete(row.undoes);
    }
  }
  return { bags: [...bags.values()], history: undoState(rows) };
}
