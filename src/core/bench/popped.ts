import { emptyBitmap, isLaid, setLaid } from '../cells/bitmap';
import { type CellRuns, cellsOfRuns } from '../cells/cellRuns';
import type { MarkKind } from './marking';

/** A drill that is lifted so soon after it was marked was marked by mistake: nothing came off. */
const CORRECTED_WITHIN_MS = 10 * 60_000;

/**
 * Cells whose drill came off again: laid once, lifted since, and not laid anew. Taking a mark back by undo is no lift,
 * for then no drill had lain there; nor is a mark that is corrected within ten minutes.
 * @param marks of the ledger in their order
 * @param cells number of cells of the canvas
 * @returns cell indices, ascending
 */
export function poppedCells(
  marks: Iterable<{ kind: MarkKind; runs: CellRuns; undoes: string | null; happenedAt: string }>,
  cells: number,
): number[] {
  const popped = emptyBitmap(cells);
  const laidAt = new Float64Array(cells);
  for (const { kind, runs, undoes, happenedAt } of marks) {
    if (kind === 'lift' && undoes !== null) continue;
    const at = Date.parse(happenedAt);
    for (const cell of cellsOfRuns(runs)) {
      if (kind === 'lay') laidAt[cell] = at;
      setLaid(popped, cell, kind === 'lift' && at - laidAt[cell]! > CORRECTED_WITHIN_MS);
    }
  }
  const found: number[] = [];
  for (let cell = 0; cell < cells; cell++) if (isLaid(popped, cell)) found.push(cell);
  return found;
}
