import type { CellRect } from '../cells/chart';
import { boxAround, type CellPart, rectsOf } from '../cells/rect';

/** A straight piece of an outline. Cells from the left and upper edge of the canvas. */
export interface OutlineLine {
  /** Whether it goes from top to bottom. */
  upright: boolean;
  /** Columns (or rows) before it. */
  at: number;
  from: number;
  to: number;
}

/** The outline of a part, without the borders between its own rectangles. */
export function outlineOf(part: CellPart): OutlineLine[] {
  const rects = rectsOf(part);
  if (rects.length === 1) {
    const { x, y, width, height } = rects[0]!;
    return [
      { upright: true, at: x, from: y, to: y + height },
      { upright: true, at: x + width, from: y, to: y + height },
      { upright: false, at: y, from: x, to: x + width },
      { upright: false, at: y + height, from: x, to: x + width },
    ];
  }
  const box = boxAround(rects);
  const [width, height] = [box.width + 2, box.height + 2];
  const inside = new Uint8Array(width * height);
  for (const rect of rects) {
    for (let y = rect.y; y < rect.y + rect.height; y++) {
      const row = (y - box.y + 1) * width + rect.x - box.x + 1;
      inside.fill(1, row, row + rect.width);
    }
  }
  const lines: OutlineLine[] = [];
  for (let x = 1; x < width; x++) {
    for (let y = 0; y < height; y++) {
      if (inside[y * width + x] === inside[y * width + x - 1]) continue;
      const from = y;
      while (y < height && inside[y * width + x] !== inside[y * width + x - 1]) y++;
      lines.push({ upright: true, at: box.x + x - 1, from: box.y + from - 1, to: box.y + y - 1 });
    }
  }
  for (let y = 1; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (inside[y * width + x] === inside[(y - 1) * width + x]) continue;
      const from = x;
      while (x < width && inside[y * width + x] !== inside[(y - 1) * width + x]) x++;
      lines.push({ upright: false, at: box.y + y - 1, from: box.x + from - 1, to: box.x + x - 1 });
    }
  }
  return lines;
}

/**
 * Where a part has most room for its number: the part itself where it is a rectangle, else the largest square in it.
 * By the usual table of the largest square that ends at each cell.
 */
export function roomiestRect(part: CellPart): CellRect {
  const rects = rectsOf(part);
  if (rects.length === 1) return rects[0]!;
  const box = boxAround(rects);
  const side = new Uint16Array(box.width * box.height);
  for (const rect of rects) {
    for (let y = rect.y - box.y; y < rect.y - box.y + rect.height; y++) {
      side.fill(1, y * box.width + rect.x - box.x, y * box.width + rect.x - box.x + rect.width);
    }
  }
  let best = { side: 0, x: 0, y: 0 };
  for (let y = 0; y < box.height; y++) {
    for (let x = 0; x < box.width; x++) {
      const at = y * box.width + x;
      if (side[at] === 0) continue;
      if (x > 0 && y > 0) {
        side[at] = 1 + Math.min(side[at - 1]!, side[at - box.width]!, side[at - box.width - 1]!);
      }
      if (side[at]! > best.side) best = { side: side[at]!, x, y };
    }
  }
  return {
    x: box.x + best.x - best.side + 1,
    y: box.y + best.y - best.side + 1,
    width: best.side,
    height: best.side,
  };
}
