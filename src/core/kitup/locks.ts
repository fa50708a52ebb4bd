/** A colour that keeps a slot whatever the goals say. */
export interface Lock {
  line: number;
  storageId: string;
  slot: string;
}

/** A slot of a case as a plan shows it. */
interface PlannedSlot {
  slot: string;
  line: number | null;
  locked: boolean;
}

/** The colours that the user keeps in place. */
export function locksOf(
  cases: readonly { storage: { id: string }; slots: readonly PlannedSlot[] }[],
): Lock[] {
  return cases.flatMap(({ storage, slots }) =>
    slots.flatMap(({ slot, line, locked }) =>
      locked && line !== null ? [{ line, storageId: storage.id, slot }] : [],
    ),
  );
}

/** The locks with one colour kept in its slots, or let go. @param own none lets it go */
export function withLocks(locks: readonly Lock[], line: number, own: readonly Lock[]): Lock[] {
  return [...locks.filter((lock) => lock.line !== line), ...own];
}

/** Those of the locks that lie in these cases. */
export function locksIn(locks: readonly Lock[], storageIds: readonly string[]): Lock[] {
  return locks.filter(({ storageId }) => storageIds.includes(storageId));
}
