import { type Bitmap, isLaid, setLaid } from '../cells/bitmap';
import type { CellRuns } from '../cells/cellRuns';
import type { MarkGround } from '../cells/markGround';

export type MarkKind = 'lay' | 'lift';

/** Undoing a laying is a lifting, and the other way round. */
export function inverseOf(kind: MarkKind): MarkKind {
  return kind === 'lay' ? 'lift' : 'lay';
}

/**
 * Of the cells asked for, those that a mark would change: cells that want a drill and are not yet laid
 * (or, for a lift, are laid). Cells without a drill are passed over, so that a drag may cross them.
 * @param runs of cells of the canvas, all on the ground given
 * @returns runs of cells of the canvas
 * @example changedCells({ lines: chart.cells, laid }, 'lay', [0, 20]) // [3, 2, 7, 1]: three drills to lay
 */
export function changedCells(
  { lines, laid, first = 0 }: MarkGround,
  kind: MarkKind,
  runs: CellRuns,
): number[] {
  const changed: number[] = [];
  const wantLaid = kind === 'lift';
  for (let i = 0; i < runs.length; i += 2) {
    const end = runs[i]! + runs[i + 1]!;
    for (let cell = runs[i]!; cell < end; cell++) {
      const at = cell - first;
      // What was laid by area may lie on squares whose colour is not typed yet: it can be lifted, not laid there.
      if ((lines !== null && lines[at] === 0 && !wantLaid) || isLaid(laid, at) !== wantLaid) continue;
      const last = changed.length - 2;
      if (last >= 0 && changed[last]! + changed[last + 1]! === cell) changed[last + 1]!++;
      else changed.push(cell, 1);
    }
  }
  return changed;
}

/** Sets the cells in the bitmap, in place. @param first index on the canvas of the bitmap's first cell */
export function applyMark(laid: Bitmap, kind: MarkKind, runs: CellRuns, first = 0): void {
  const lay = kind === 'lay';
  for (let i = 0; i < runs.length; i += 2) {
    const end = runs[i]! + runs[i + 1]! - first;
    for (let at = runs[i]! - first; at < end; at++) setLaid(laid, at, lay);
  }
}

/** The colour that all these cells have; null for several. @param lines of the canvas from its cell `first` on */
export function onlyLine(lines: Uint16Array, runs: CellRuns, first = 0): number | null {
  const line = runs.length > 0 ? lines[runs[0]! - first]! : 0;
  for (let i = 0; i < runs.length; i += 2) {
    const end = runs[i]! + runs[i + 1]! - first;
    for (let at = runs[i]! - first; at < end; at++) if (lines[at] !== line) return null;
  }
  return line === 0 ? null : line;
}
