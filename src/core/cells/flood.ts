import type { Chart } from './chart';

/** The connected area of one colour around a cell (beside, above, below). */
export function floodCells({ width, height, cells }: Chart, x: number, y: number): number[] {
  const start = y * width + x;
  const line = cells[start]!;
  const found = new Set([start]);
  const open = [start];
  while (open.length > 0) {
    const cell = open.pop()!;
    const cx = cell % width;
    const near = [
      cx > 0 ? cell - 1 : -1,
      cx < width - 1 ? cell + 1 : -1,
      cell - width,
      cell + width < width * height ? cell + width : -1,
    ];
    for (const next of near) {
      if (next < 0 || found.has(next) || cells[next] !== line) continue;
      found.add(next);
      open.push(next);
    }
  }
  return [...found];
}
