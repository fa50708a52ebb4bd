import type { CellRect } from '../cells/chart';

/** Along a row, from left to right, or down a column. */
type Orientation = 'h' | 'v';

/** One setting down of a tip: `length` neighbouring cells of one colour from (x, y) rightwards or downwards. */
export interface Placement {
  x: number;
  y: number;
  length: number;
  orientation: Orientation;
  /** Legend line of the colour. */
  line: number;
  /** The tip it is laid with, by the drills it takes. */
  tip: number;
}

/** The cells of a placement. */
export function placementRect({ x, y, length, orientation }: Placement): CellRect {
  return orientation === 'h' ? { x, y, width: length, height: 1 } : { x, y, width: 1, height: length };
}

/** How often the tip changes from one placement to the next, in the order given. */
export function tipChanges(placements: readonly Placement[]): number {
  return changes(placements, ({ tip }) => tip);
}

/**
 * How often the tray or the pen is turned: from rows to columns or back, within a colour or between two. A single drill
 * lies either way.
 */
export function turnsIn(placements: readonly Placement[]): number {
  return changes(
    placements.filter(({ length }) => length > 1),
    ({ orientation }) => orientation,
  );
}

function changes<Item>(items: readonly Item[], of: (item: Item) => unknown): number {
  return items.reduce((count, item, i) => count + (i > 0 && of(item) !== of(items[i - 1]!) ? 1 : 0), 0);
}
