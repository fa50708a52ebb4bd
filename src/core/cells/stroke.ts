import type { CellPlace } from './rect';

/**
 * The cells on the straight way from one cell to another, the first left out (Bresenham's line),
 * so that a fast drag skips none.
 */
export function cellsOnTheWay(from: CellPlace, to: CellPlace): CellPlace[] {
  const dx = Math.abs(to.x - from.x);
  const dy = -Math.abs(to.y - from.y);
  const stepX = Math.sign(to.x - from.x);
  const stepY = Math.sign(to.y - from.y);
  const way: CellPlace[] = [];
  let { x, y } = from;
  let error = dx + dy;
  while (x !== to.x || y !== to.y) {
    const twice = 2 * error;
    if (twice >= dy) {
      error += dy;
      x += stepX;
    }
    if (twice <= dx) {
      error += dx;
      y += stepY;
    }
    way.push({ x, y });
  }
  return way;
}
