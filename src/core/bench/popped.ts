import { emptyBitmap, isLaid, setLaid } from '../cells/bitmap';
import { type CellRuns, cellsOfRuns } from '../cells/cellRuns';
import type { MarkKind } from './marking';

/**
 * Cells whose drill came off again: laid once, lifted since, and not laid anew. Taking a mark back by undo is no lift,
 * for then no drill had lain there.
 * @param marks of the ledger in their order
 * @param cells number of cells of the canvas
 * @returns cell indices, ascending
 */
export function poppedCells(
  marks: Iterable<{ kind: MarkKind; runs: CellRuns; undoes: string | null }>,
  cells: number,
): number[] {
  const popped = emptyBitmap(cells);
  for (const { kind, runs, undoes } of marks) {
    if (kind === 'lift' && undoes !== null) continue;
    for (const cell of cellsOfRuns(runs)) setLaid(popped, cell, kind === 'lift');
  }
  const found: number[] = [];
  for (let cell = 0; cell < cells; cell++) if (isLaid(popped, cell)) found.push(cell);
  return found;
}
