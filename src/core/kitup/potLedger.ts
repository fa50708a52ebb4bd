/** What happens to a pot: drills go in, that was a mistake, or it is emptied when the canvas is done. */
export type PotEventKind = 'fill' | 'take back' | 'put away';

/** One row of the pot ledger. A row with `undoes` only takes that row back. */
export interface PotRow {
  id: string;
  line: number;
  kind: PotEventKind;
  undoes: string | null;
}

/** What became of each pot last, by line. @param rows in the order in which they were written */
export function potStates(rows: readonly PotRow[]): Map<number, PotEventKind> {
  const undone = new Set(rows.map(({ undoes }) => undoes));
  const states = new Map<number, PotEventKind>();
  for (const { id, line, kind, undoes } of rows) {
    if (undoes === null && !undone.has(id)) states.set(line, kind);
  }
  return states;
}
