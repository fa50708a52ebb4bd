import type { LegendLine } from '../canvas/legend';

/**
 * Drills of a colour that want a place: those that are here once all its bags are counted, else those that the sheet
 * lists in packets, at least the drills needed.
 */
export function drillsToStore(
  line: Pick<LegendLine, 'neededDrills' | 'packets'>,
  here: { drills: number; bags: number },
  packetDrills: number,
): number {
  if (here.bags > 0 && here.bags >= line.packets) return here.drills;
  return Math.max(here.drills, line.packets * packetDrills, line.neededDrills);
}

/** A bag that stands beside the pots. */
export interface NumberedBag {
  bag: number;
  line: number;
  drills: number;
  /** The whole colour is in it; else what its pot does not take. */
  whole: boolean;
}

/** Numbers the bags: whole colours first, in the order given, then overflow in the order of the pots. */
export function numberedBags(
  whole: readonly { line: number; drills: number }[],
  pots: readonly { line: number; drills: number; capacity: number }[],
): NumberedBag[] {
  const overflowing = pots.filter(({ drills, capacity }) => drills > capacity);
  return [
    ...whole.map((each) => ({ ...each, whole: true })),
    ...overflowing.map(({ line, drills, capacity }) => ({ line, drills: drills - capacity, whole: false })),
  ].map((each, i) => ({ bag: i + 1, ...each }));
}
