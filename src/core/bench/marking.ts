import { type Bitmap, isLaid, setLaid } from '../chart/bitmap';
import { type CellRuns, cellsOfRuns, runsFromCells } from '../chart/cellRuns';
import type { CellRect, Chart } from '../chart/chart';
import { forEachCell } from '../sections/blockGrid';

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

/** Every cell of a colour inside a rectangle that is (or is not) laid. @param line null for any colour */
export function cellsInRect(
  chart: Chart,
  laid: Bitmap,
  rect: CellRect,
  line: number | null,
  wantLaid: boolean,
): number[] {
  const cells: number[] = [];
  forEachCell(chart, rect, (cell, here) => {
    if (here !== 0 && (line === null || here === line) && isLaid(laid, cell) === wantLaid) cells.push(cell);
  });
  return cells;
}
