/**
 * Undo over an append-only ledger: nothing is ever struck out, an undo is a row of its own.
 * A row either does something new, or takes back an earlier row (`undoes`), or does it again (`redoes`).
 */
export interface LedgerRow {
  id: string;
  /** The screen that wrote it; null where it has no name. */
  screen: string | null;
  undoes: string | null;
  redoes: string | null;
}

/** What the next undo and the next redo of a screen act on; null where there is nothing. */
export interface UndoState {
  undo: string | null;
  /** Whether that was done at this very screen. */
  own: boolean;
  redo: string | null;
}

/**
 * A screen takes back what it did last itself. One that has nothing of its own left (a new one, say) is offered what was
 * done last anywhere.
 * @param rows in the order in which they were written, oldest first
 */
export function undoState(rows: readonly LedgerRow[], screen: string | null): UndoState {
  const done: LedgerRow[] = [];
  let undone: string[] = [];
  for (const row of rows) {
    const own = row.screen === screen;
    if (row.undoes !== null) {
      const at = done.findLastIndex(({ id }) => id === row.undoes);
      if (at >= 0) done.splice(at, 1);
      if (own) undone.push(row.undoes);
      continue;
    }
    if (row.redoes !== null) undone = undone.filter((id) => id !== row.redoes);
    else if (own) undone = [];
    done.push(row);
  }
  const last = done.findLast((row) => row.screen === screen) ?? done.at(-1);
  return {
    undo: last?.id ?? null,
    own: last !== undefined && last.screen === screen,
    redo: undone.at(-1) ?? null,
  };
}

/** The same, with what each of the two did, so that it can be named before it is done. */
export interface UndoView<Offer extends { id: string }> {
  /** `device` is where it was done, by name; left out where it was here, or where there is but one. */
  undo: (Offer & { own: boolean; device?: string }) | null;
  redo: Offer | null;
  /** Set where nobody said at which screen: what is its own, and so what undo takes back there, is not known yet. */
  nameless?: true;
}

/** What undo and redo of a screen are told to act on. @param screenId the screen that asks; null where it did not say */
export function undoView<Offer extends { id: string }>(
  screenId: string | null,
  undo: UndoView<Offer>['undo'],
  redo: UndoView<Offer>['redo'],
): UndoView<Offer> {
  return { undo, redo, ...(screenId === null && { nameless: true }) };
}
