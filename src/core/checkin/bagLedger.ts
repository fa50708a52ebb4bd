import type { BagMeasure, BagOrigin, CountedBag, SharedError } from './bag';
import { nominalSpread } from './filling';

/** One row of the bag ledger. */
export interface BagRow {
  id: string;
  /**
   * An `assign` gives the bag `subject` to a colour; a `change` gives it all that the row says; a `remove` takes it out
   * of the reckoning; a `take back` undoes any of these.
   */
  kind: 'count' | 'take back' | 'assign' | 'change' | 'remove';
  line: number | null;
  label: string;
  drills: number;
  how: BagMeasure;
  /** Standard deviation in drills; null for the usual one of a nominal packet. */
  spread: number | null;
  shared: readonly SharedError[];
  origin: BagOrigin;
  subject: string | null;
  undoes: string | null;
  redoes: string | null;
}

/** A row with when it was written and at which screen. */
export interface DatedBagRow extends BagRow {
  happenedAt: string;
  screenId: string | null;
  /** The device of that screen by name; null where there is but one. */
  device?: string | null;
}

/** What a row says that a bag is. */
type BagState = Pick<BagRow, 'line' | 'label' | 'drills' | 'how' | 'spread' | 'shared' | 'origin'>;

/** A bag over the ledger: the rows about it that stand, its count first. */
interface BagHistory<Row extends BagRow> {
  versions: Row[];
  removals: Row[];
}

/**
 * What stands of a bag ledger: the bags in the order in which they were counted, each as it was said last, and the
 * entries that were not taken back.
 * @param rows in the order in which they were written
 */
export function standingBags<Row extends BagRow>(
  rows: readonly Row[],
): { bags: CountedBag[]; removed: RemovedBag<Row>[]; standing: ReadonlySet<string> } {
  const bags = new Map<string, BagHistory<Row>>();
  const standing = new Set<string>();
  for (const row of rows) {
    if (row.kind === 'take back') {
      takeBack(bags, row);
      standing.delete(row.undoes ?? '');
      continue;
    }
    standing.add(row.id);
    if (row.kind === 'count') bags.set(row.id, { versions: [row], removals: [] });
    else if (row.kind === 'remove') bags.get(row.subject ?? '')?.removals.push(row);
    else bags.get(row.subject ?? '')?.versions.push(row);
  }
  const here: CountedBag[] = [];
  const removed: RemovedBag<Row>[] = [];
  for (const [id, { versions, removals }] of bags) {
    const bag = bagOf(id, versions);
    const removal = removals.at(-1);
    if (removal) removed.push({ bag, removal });
    else here.push(bag);
  }
  return { bags: here, removed, standing };
}

/** A bag that was removed, with the entry that did it; taking that back brings it back. */
export interface RemovedBag<Row extends BagRow> {
  bag: CountedBag;
  removal: Row;
}

function takeBack<Row extends BagRow>(bags: Map<string, BagHistory<Row>>, row: Row): void {
  const subject = bags.get(row.subject ?? '');
  if (!subject) return void bags.delete(row.undoes ?? '');
  subject.versions = subject.versions.filter(({ id }) => id !== row.undoes);
  subject.removals = subject.removals.filter(({ id }) => id !== row.undoes);
}

function bagOf(id: string, versions: readonly BagRow[]): CountedBag {
  const { line, label, drills, how, spread, shared, origin }: BagState = versions.at(-1)!;
  return { id, line, label, drills, how, spread: spread ?? nominalSpread(drills), shared, origin };
}

/**
 * Whether a bag was changed, moved or removed after an entry about it: then that entry cannot be taken back by itself.
 * @param rows in the order in which they were written
 */
export function laterOnSameBag(rows: readonly BagRow[], id: string): BagRow | null {
  const at = rows.findIndex((row) => row.id === id);
  const entry = rows[at];
  if (!entry) return null;
  const bag = entry.kind === 'count' ? entry.id : entry.subject;
  const { standing } = standingBags(rows);
  return rows.slice(at + 1).find((row) => row.subject === bag && standing.has(row.id)) ?? null;
}

/**
 * Colours that an entry of the ledger concerns: what it says, and what was said of its bag before and since.
 * @returns legend lines, null for a bag of no colour in the list
 */
export function linesOfEntry(rows: readonly BagRow[], id: string): (number | null)[] {
  const entry = rows.find((row) => row.id === id);
  const bag = entry?.subject ?? entry?.undoes ?? id;
  return rows.filter((row) => row.id === id || row.id === bag || row.subject === bag).map(({ line }) => line);
}

/** A bag as the list under its colour shows it. */
export interface ListedBag extends CountedBag {
  /** When it was counted (UTC). */
  countedAt: string;
  /** Number of the screen at which it was counted, from 1 in the order in which screens first wrote; 0 for this one. */
  screen: number;
  /** The device at which it was counted, by name; null where there is but one. */
  device: string | null;
  /** When it was changed last; null where it is as it was counted. */
  changedAt: string | null;
  /** The entry that removed it; null while it is here. */
  removedBy: string | null;
}

/**
 * Every bag that was counted and not taken back at once, those that were removed with them.
 * @param screenId the screen that looks
 */
export function listedBags(rows: readonly DatedBagRow[], screenId: string | null): ListedBag[] {
  const { bags, removed, standing } = standingBags(rows);
  const removedBy = new Map(removed.map(({ bag, removal }) => [bag.id, removal.id]));
  const screens = [...new Set(rows.map((row) => row.screenId))];
  const first = new Map(rows.map((row) => [row.id, row]));
  const changedAt = new Map<string, string>();
  for (const row of rows) {
    if (row.subject !== null && standing.has(row.id)) changedAt.set(row.subject, row.happenedAt);
  }
  return (
    [...bags, ...removed.map(({ bag }) => bag)]
      .map((bag): ListedBag => {
        const count = first.get(bag.id)!;
        return {
          ...bag,
          countedAt: count.happenedAt,
          screen: count.screenId === screenId ? 0 : screens.indexOf(count.screenId) + 1,
          device: count.device ?? null,
          changedAt: changedAt.get(bag.id) ?? null,
          removedBy: removedBy.get(bag.id) ?? null,
        };
      })
      // Moments as text sort as they are; comparing them as words takes twenty times as long.
      .sort((a, b) => (a.countedAt < b.countedAt ? -1 : a.countedAt > b.countedAt ? 1 : 0))
  );
}
