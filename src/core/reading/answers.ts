/** An entry of the ledger of answers: what somebody said of squares, or that an earlier entry does not hold. */
export interface AnswerEntry {
  id: string;
  screenId: string | null;
  answers: readonly (readonly [square: number, line: number])[];
  undoes: string | null;
}

/** What was said last of each square, undone entries left out. @param ledger the oldest first */
export function standingAnswers(ledger: readonly AnswerEntry[]): Map<number, number> {
  const undone = new Set(ledger.flatMap(({ undoes }) => undoes ?? []));
  const standing = new Map<number, number>();
  for (const { id, answers } of ledger) {
    if (undone.has(id)) continue;
    for (const [square, line] of answers) standing.set(square, line);
  }
  return standing;
}
