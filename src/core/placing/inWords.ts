import { counted, many } from '../words/numbers';
import type { Placement } from './placement';
import type { PlacingPlan } from './plan';

/** Rows or columns of a section with the bars on them, as they are read out or printed. */
export interface ReadOutLine {
  /** Row or column of the canvas, from 1. */
  number: number;
  words: string;
}

/** A bar as it is called out: by its drills, a lone one as "single". */
function barWord(length: number): string {
  return length === 1 ? 'single' : String(length);
}

/**
 * The bars of one colour along rows, row by row from the left, and those down columns.
 * @example readOut(placements).along[0] // { number: 12, words: 'from column 4: 7, 3, skip 2, single' }
 */
export function readOut(placements: readonly Placement[]): { along: ReadOutLine[]; down: ReadOutLine[] } {
  const lines = (orientation: Placement['orientation']): ReadOutLine[] => {
    const isAlong = orientation === 'h';
    const byLine = new Map<number, { at: number; length: number }[]>();
    for (const placement of placements) {
      if (placement.orientation !== orientation) continue;
      const number = isAlong ? placement.y : placement.x;
      const bars = byLine.get(number) ?? [];
      bars.push({ at: isAlong ? placement.x : placement.y, length: placement.length });
      byLine.set(number, bars);
    }
    return [...byLine]
      .sort(([a], [b]) => a - b)
      .map(([number, bars]) => {
        bars.sort((a, b) => a.at - b.at);
        const words: string[] = [];
        let next = bars[0]!.at;
        for (const { at, length } of bars) {
          if (at > next) words.push(`skip ${at - next}`);
          words.push(barWord(length));
          next = at + length;
        }
        return {
          number: number + 1,
          words: `from ${isAlong ? 'column' : 'row'} ${bars[0]!.at + 1}: ${words.join(', ')}`,
        };
      });
  };
  return { along: lines('h'), down: lines('v') };
}

/** Placements and drills by tip, the widest first. */
export function countsByTip(
  placements: readonly Placement[],
): { tip: number; placements: number; drills: number }[] {
  const byTip = new Map<number, { placements: number; drills: number }>();
  for (const { tip, length } of placements) {
    const count = byTip.get(tip) ?? { placements: 0, drills: 0 };
    count.placements++;
    count.drills += length;
    byTip.set(tip, count);
  }
  return [...byTip].map(([tip, count]) => ({ tip, ...count })).sort((a, b) => b.tip - a.tip);
}

/** How near a plan is to the best there can be. @example '118 placements; no plan has fewer than 117' */
export function boundInWords({
  placements,
  lowerBound,
}: Pick<PlacingPlan, 'placements' | 'lowerBound'>): string {
  return placements.length === lowerBound
    ? 'No plan has fewer.'
    : `No plan has fewer than ${many(lowerBound)}.`;
}

/** The end of a bar that is set down first, and where it rolls to. */
export interface Roll {
  /** Place of the plant end, column and row from 0. */
  plant: { x: number; y: number };
  to: 'right' | 'left' | 'down';
}

/** A bar is planted beside what is laid already and rolled towards the hand; down a column it is planted at the top. */
export function rollOf({ x, y, length, orientation }: Placement, hand: 'right' | 'left'): Roll {
  if (orientation === 'v') return { plant: { x, y }, to: 'down' };
  return hand === 'right'
    ? { plant: { x, y }, to: 'right' }
    : { plant: { x: x + length - 1, y }, to: 'left' };
}

/** One placement as it is told while stepping. @example 'Row 12, columns 5 to 11: 7 with the 7-tip. Plant column 5, roll to the right.' */
export function placementInWords(placement: Placement, hand: 'right' | 'left'): string {
  const { x, y, length, orientation, tip } = placement;
  if (length === 1) return `Row ${y + 1}, column ${x + 1}: a single drill.`;
  const [where, from, to] =
    orientation === 'h'
      ? [`Row ${y + 1}, columns`, x + 1, x + length]
      : [`Column ${x + 1}, rows`, y + 1, y + length];
  const { plant, to: way } = rollOf(placement, hand);
  const end = orientation === 'h' ? `column ${plant.x + 1}` : `row ${plant.y + 1}`;
  const filled = length === tip ? counted(length, 'drill') : `only ${length} drills`;
  return `${where} ${from} to ${to}: ${filled} with the ${tip}-tip. Plant ${end} first, roll ${way === 'down' ? 'down' : `to the ${way}`}.`;
}
