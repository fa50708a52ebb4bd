import { type Bitmap, isLaid } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import { type CellPart, forEachCell } from '../cells/rect';

/** Whether no neighbour of a cell (left, right, above, below) has its colour. */
export function isConfetti({ cells, width, height }: Chart, cell: number, x: number, y: number): boolean {
  const line = cells[cell];
  return (
    !(x > 0 && cells[cell - 1] === line) &&
    !(x < width - 1 && cells[cell + 1] === line) &&
    !(y > 0 && cells[cell - width] === line) &&
    !(y < height - 1 && cells[cell + width] === line)
  );
}

/** Confetti that is still to lay in some parts of a chart. */
export function countConfetti(chart: Chart, parts: readonly CellPart[], laid: Bitmap): number {
  let count = 0;
  for (const part of parts) {
    forEachCell(chart, part, (cell, line, x, y) => {
      if (line !== 0 && !isLaid(laid, cell) && isConfetti(chart, cell, x, y)) count++;
    });
  }
  return count;
}

/** Whether most of the drills of a plan are laid one by one, so that bars hardly matter. */
export function isMostlySingles({
  drills,
  effort,
}: {
  drills: number;
  effort: { singles: number };
}): boolean {
  return effort.singles * 2 > drills;
}
