import { cellIndex } from '../cells/rect';

/** An entry of the ledger of answers: what somebody said of squares, or that an earlier entry does not hold. */
export interface AnswerEntry {
  id: string;
  screenId: string | null;
  /** By column and row, so that they stay where they are when the canvas gets another width. */
  answers: readonly (readonly [column: number, row: number, line: number])[];
  undoes: string | null;
}

/**
 * What was said last of each square, by its index on the canvas; undone entries and what lies outside are left out.
 * @param ledger the oldest first
 */
export function standingAnswers(
  ledger: readonly AnswerEntry[],
  canvas: { width: number; height: number },
): Map<number, number> {
  const undone = new Set(ledger.flatMap(({ undoes }) => undoes ?? []));
  const standing = new Map<number, number>();
  for (const { id, answers } of ledger) {
    if (undone.has(id)) continue;
    for (const [column, row, line] of answers)
      if (column < canvas.width && row < canvas.height)
        standing.set(cellIndex({ x: column, y: row }, canvas.width), line);
  }
  return standing;
}
