/**
 * What happens to a pot: drills go in, that was a mistake, it is emptied when the canvas is done, or the leftover that
 * was said then is corrected (`amount`).
 */
export type PotEventKind = 'fill' | 'take back' | 'put away' | 'amount';

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
    if (undoes === null && !undone.has(id) && kind !== 'amount') states.set(line, kind);
  }
  return states;
}

/** What happened to a pot last, of what stands. @param rows in the order in which they were written */
export function lastOfPot<Row extends PotRow>(rows: readonly Row[], line: number): Row | null {
  const undone = new Set(rows.map(({ undoes }) => undoes));
  return rows.findLast((row) => row.line === line && row.undoes === null && !undone.has(row.id)) ?? null;
}

/** Leftover drills of each pot that was put away, as they were said last, by line. @param rows as written */
export function putAwayDrills(rows: readonly (PotRow & { drills: number })[]): Map<number, number> {
  const undone = new Set(rows.map(({ undoes }) => undoes));
  const drills = new Map<number, number>();
  for (const row of rows) {
    if (row.undoes === null && !undone.has(row.id) && (row.kind === 'put away' || row.kind === 'amount'))
      drills.set(row.line, row.drills);
  }
  return drills;
}
