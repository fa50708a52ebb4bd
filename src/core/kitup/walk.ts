import type { LegendLine } from '../canvas/legend';

/** Colours that have a slot, in the order of the slots. */
function potted(slots: readonly { line: number | null }[]): number[] {
  return slots.flatMap(({ line }) => line ?? []);
}

/** The next pot to fill, in the order of the slots; null where all are. */
export function nextPot(
  slots: readonly { line: number | null }[],
  filled: ReadonlySet<number>,
): number | null {
  return potted(slots).find((line) => !filled.has(line)) ?? null;
}

/** The next colour to put away, in the order of the sheet: one with a pot, or a filled one, that is not away yet. */
export function nextToPutAway(
  legend: readonly LegendLine[],
  slots: readonly { line: number | null }[],
  filled: ReadonlySet<number>,
  away: ReadonlySet<number>,
): LegendLine | null {
  const inPots = new Set(potted(slots));
  return legend.find(({ line }) => !away.has(line) && (inPots.has(line) || filled.has(line))) ?? null;
}
