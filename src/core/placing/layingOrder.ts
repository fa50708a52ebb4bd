import type { CellRect } from '../cells/chart';
import type { Placement } from './placement';
import type { PlacingWish } from './wish';

/**
 * The placements of a section in the order in which they are laid: colour by colour; of a colour first the bars, one
 * direction after the other and beginning with the direction that the last colour ended with, then the single drills.
 * From the top downwards and from the side away from the hand, so that the hand never rests on what was just laid.
 * @param lines the colours in their order
 * @returns the placements and how often a colour is opened
 */
export function inLayingOrder(
  placements: readonly Placement[],
  lines: readonly number[],
  section: CellRect,
  hand: 'right' | 'left',
  { passes, tipByTip }: Pick<PlacingWish, 'passes' | 'tipByTip'>,
): { laid: Placement[]; openings: number } {
  const byLine = new Map<number, Placement[]>();
  for (const placement of placements) {
    const own = byLine.get(placement.line);
    if (own) own.push(placement);
    else byLine.set(placement.line, [placement]);
  }
  const across = hand === 'right' ? 1 : -1;
  const inGap = ({ x, y, orientation }: Placement) => {
    const [row, column] = [y - section.y, x - section.x];
    return (passes === 'checkerboard' ? row + column : orientation === 'h' ? row : column) % 2 === 1;
  };
  const laid: Placement[] = [];
  let openings = 0;
  let last: Placement['orientation'] = 'h';
  for (const gaps of passes === 'one' ? [null] : [false, true]) {
    for (const line of lines) {
      const own = (byLine.get(line) ?? []).filter((each) => gaps === null || inGap(each) === gaps);
      if (own.length === 0) continue;
      openings++;
      const bars = own.filter(({ length }) => length > 1);
      const begin = bars.some(({ orientation }) => orientation === last) ? last : last === 'h' ? 'v' : 'h';
      const stage = ({ length, orientation }: Placement) =>
        tipByTip && length === 1 ? 2 : orientation === begin ? 0 : 1;
      own.sort((a, b) => {
        const [stageA, stageB] = [stage(a), stage(b)];
        if (stageA !== stageB) return stageA - stageB;
        if (tipByTip && a.tip !== b.tip) return b.tip - a.tip;
        // Columns are worked from the side away from the hand, each downwards.
        return a.orientation === 'v' && stageA < 2
          ? (a.x - b.x) * across || a.y - b.y
          : a.y - b.y || (a.x - b.x) * across;
      });
      laid.push(...own);
      const end = own.findLast(({ length }) => length > 1);
      if (end) last = end.orientation;
    }
  }
  return { laid, openings };
}
