/**
 * Undo over an append-only ledger: nothing is ever struck out, an undo is a row of its own.
 * A row either does something new, or takes back an earlier row (`undoes`), or does it again (`redoes`).
 */
export interface LedgerRow {
  id: string;
  undoes: string | null;
  redoes: string | null;
}

/** What the next undo and the next redo act on; null where there is nothing. */
export interface UndoState {
  undo: string | null;
  redo: string | null;
}

/** @param rows in the order in which they were written, oldest first; a tail of the ledger will do */
export function undoState(rows: readonly LedgerRow[]): UndoState {
  const done: string[] = [];
  const undone: string[] = [];
  for (const row of rows) {
    if (row.undoes !== null) {
      remove(done, row.undoes);
      undone.push(row.undoes);
    } else {
      if (row.redoes !== null) remove(undone, row.redoes);
      else undone.length = 0;
      done.push(row.id);
    }
  }
  return { undo: done.at(-1) ?? null, redo: undone.at(-1) ?? null };
}

function remove(stack: string[], id: string): void {
  const at = stack.lastIndexOf(id);
  if (at >= 0) stack.splice(at, 1);
}
