import { type Bitmap, isLaid, setLaid } from '../cells/bitmap';
import { type CellRuns, cellsOfRuns, runsFromCells } from '../cells/cellRuns';
import type { Chart } from '../cells/chart';

export type MarkKind = 'lay' | 'lift';

/** Undoing a laying is a lifting, and the other way round. */
export function inverseOf(kind: MarkKind): MarkKind {
  return kind === 'lay' ? 'lift' : 'lay';
}

/**
 * Of the cells asked for, those that a mark would change: cells that want a drill and are not yet laid
 * (or, for a lift, are laid). Cells without a drill are passed over, so that a drag may cross them.
 */
export function changedCells(chart: Chart, laid: Bitmap, kind: MarkKind, runs: CellRuns): number[] {
  const changed: number[] = [];
  for (const cell of cellsOfRuns(runs)) {
    if (chart.cells[cell] !== 0 && isLaid(laid, cell) === (kind === 'lift')) changed.push(cell);
  }
  return runsFromCells(changed);
}

/** Sets the cells in the bitmap, in place. */
export function applyMark(laid: Bitmap, kind: MarkKind, runs: CellRuns): void {
  for (const cell of cellsOfRuns(runs)) setLaid(laid, cell, kind === 'lay');
}
