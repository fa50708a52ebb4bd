import { type Bitmap, emptyBitmap, isLaid, setLaid } from '../cells/bitmap';
import { type CellRuns, cellsOfRuns } from '../cells/cellRuns';
import type { MarkKind } from './marking';

/** A drill that is lifted so soon after it was marked was marked by mistake: nothing came off. */
export const CORRECTED_WITHIN_MS = 10 * 60_000;

/** A mark as far as it tells what has popped. */
export interface PopMark {
  kind: MarkKind;
  runs: CellRuns;
  happenedAt: string;
  /** Of a lift: whether its drills came off by themselves; null where nobody said. */
  popped: boolean | null;
}

/**
 * Cells whose drill came off again and that are bare since. A lift says itself whether its drills came off; where it says
 * nothing it counts, unless the drill was laid within ten minutes before, which corrects a mistake.
 * @param marks all lifts that stand, and the layings of the ten minutes before those that say nothing, in their order.
 *   Taking a mark back by undo is no lift, for then no drill had lain there
 * @param laid what is laid now; as many cells as the canvas has
 * @returns cell indices, ascending
 */
export function poppedCells(marks: Iterable<PopMark>, laid: Bitmap, cells: number): number[] {
  const popped = emptyBitmap(cells);
  const laidAt = new Map<number, number>();
  for (const { kind, runs, happenedAt, popped: said } of marks) {
    const at = Date.parse(happenedAt);
    for (const cell of cellsOfRuns(runs)) {
      if (cell >= cells) continue;
      if (kind === 'lay') laidAt.set(cell, at);
      else {
        const mistake = at - (laidAt.get(cell) ?? Number.NEGATIVE_INFINITY) <= CORRECTED_WITHIN_MS;
        setLaid(popped, cell, said ?? !mistake);
      }
    }
  }
  const found: number[] = [];
  for (let cell = 0; cell < cells; cell++) if (isLaid(popped, cell) && !isLaid(laid, cell)) found.push(cell);
  return found;
}
