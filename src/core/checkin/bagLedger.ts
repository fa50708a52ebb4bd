import { type BagMeasure, type CountedBag, nominalSpread } from './supply';

/** One row of the bag ledger. */
export interface BagRow {
  id: string;
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

/**
 * What stands of a bag ledger: the bags in the order in which they were counted, each under the line that it was given
 * last, and the entries that were not taken back.
 * @param rows in the order in which they were written
 */
export function standingBags(rows: readonly BagRow[]): { bags: CountedBag[]; standing: ReadonlySet<string> } {
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
  return { bags: [...bags.values()], standing };
}
