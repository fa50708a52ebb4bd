import { type Bitmap, isLaid } from './bitmap';
import type { CellRect, Chart } from './chart';

/** A cell's place: column and row from 0. */
export interface CellPlace {
  x: number;
  y: number;
}

/** Index of a cell in a row-major array of so many columns. */
export function cellIndex({ x, y }: CellPlace, width: number): number {
  return y * width + x;
}

/** Inverse of {@link cellIndex}. */
export function placeOfCell(cell: number, width: number): CellPlace {
  return { x: cell % width, y: Math.floor(cell / width) };
}

/** The whole of something as a rectangle. */
export function wholeRect({ width, height }: { width: number; height: number }): CellRect {
  return { x: 0, y: 0, width, height };
}

/**
 * The rectangle between two cells (or units of any grid), both included, whichever corners they are.
 * @example rectBetween({ x: 4, y: 1 }, { x: 2, y: 3 }) // { x: 2, y: 1, width: 3, height: 3 }
 */
export function rectBetween(a: CellPlace, b: CellPlace): CellRect {
  return {
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x) + 1,
    height: Math.abs(a.y - b.y) + 1,
  };
}

/** Some cells of a chart: a rectangle, or several that lie apart, with the rectangle around them. */
export interface CellPart extends CellRect {
  /** Left out where the part is the rectangle itself. */
  rects?: readonly CellRect[];
}

/** The rectangles that a part is made of, none over another. */
export function rectsOf(part: CellPart): readonly CellRect[] {
  return part.rects ?? [part];
}

export function isInside(part: CellPart, { x, y }: CellPlace): boolean {
  return rectsOf(part).some(
    (rect) => x >= rect.x && y >= rect.y && x < rect.x + rect.width && y < rect.y + rect.height,
  );
}

/** The smallest rectangle around all of some rectangles, of which there is at least one. */
export function boxAround(rects: readonly CellRect[]): CellRect {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y, width, height } of rects) {
    left = Math.min(left, x);
    top = Math.min(top, y);
    right = Math.max(right, x + width);
    bottom = Math.max(bottom, y + height);
  }
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/** What two rectangles have in common; null where they do not meet. */
export function overlapOf(a: CellRect, b: CellRect): CellRect | null {
  const [x, y] = [Math.max(a.x, b.x), Math.max(a.y, b.y)];
  const width = Math.min(a.x + a.width, b.x + b.width) - x;
  const height = Math.min(a.y + a.height, b.y + b.height) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : null;
}

/** Visits the cells of a part, rectangle by rectangle and row by row, with their index and legend line. The part lies on the chart. */
export function forEachCell(
  chart: Chart,
  part: CellPart,
  visit: (cell: number, line: number, x: number, y: number) => void,
): void {
  for (const rect of rectsOf(part)) {
    for (let y = rect.y; y < rect.y + rect.height; y++) {
      for (let x = rect.x; x < rect.x + rect.width; x++) {
        const cell = y * chart.width + x;
        visit(cell, chart.cells[cell]!, x, y);
      }
    }
  }
}

/** Whether some cell of a part passes a test. @param width columns of the canvas */
export function someCell(width: number, part: CellPart, test: (cell: number) => boolean): boolean {
  for (const rect of rectsOf(part)) {
    for (let y = rect.y; y < rect.y + rect.height; y++) {
      for (let cell = y * width + rect.x, end = cell + rect.width; cell < end; cell++)
        if (test(cell)) return true;
    }
  }
  return false;
}

/**
 * Drills per line inside a part; with a bitmap, only those still to be laid. Index 0 counts bare cells.
 * @example countInPart(chart, section, highestLine(legend), null)[7] // drills of line 7 in the section
 */
export function countInPart(chart: Chart, part: CellPart, lines: number, laid: Bitmap | null): Uint32Array {
  const counts = new Uint32Array(lines + 1);
  forEachCell(chart, part, (cell, line) => {
    if (laid === null || !isLaid(laid, cell)) counts[line]!++;
  });
  return counts;
}

/**
 * A number that changes when something is laid or lifted in a part, and with nothing else: FNV-1a (from memory) over the
 * cells that are laid there. @param width columns of the canvas
 */
export function printOfLaid(laid: Bitmap, width: number, part: CellPart): number {
  let print = 0x811c9dc5;
  someCell(width, part, (cell) => {
    if (isLaid(laid, cell)) print = Math.imul(print ^ cell, 0x01000193);
    return false;
  });
  return print;
}

/** Every cell of a colour inside a part that is (or is not) laid. @param line null for any colour */
export function cellsInPart(
  chart: Chart,
  laid: Bitmap,
  part: CellPart,
  line: number | null,
  wantLaid: boolean,
): number[] {
  const cells: number[] = [];
  forEachCell(chart, part, (cell, here) => {
    if (here !== 0 && (line === null || here === line) && isLaid(laid, cell) === wantLaid) cells.push(cell);
  });
  return cells;
}

/** Indices of all cells of a rectangle, as far as it lies on the chart. */
export function rectCells(chart: Chart, rect: CellRect): number[] {
  const x = Math.max(0, rect.x);
  const y = Math.max(0, rect.y);
  const width = Math.max(0, Math.min(chart.width, rect.x + rect.width) - x);
  const height = Math.max(0, Math.min(chart.height, rect.y + rect.height) - y);
  const cells: number[] = [];
  forEachCell(chart, { x, y, width, height }, (cell) => cells.push(cell));
  return cells;
}

/** A part of a chart as a chart of its own. */
export function cropped(chart: Chart, { x, y, width, height }: CellRect): Chart {
  const cells = new Uint16Array(width * height);
  for (let row = 0; row < height; row++) {
    const from = (y + row) * chart.width + x;
    cells.set(chart.cells.subarray(from, from + width), row * width);
  }
  return { width, height, cells };
}

export function isSameRect(a: CellRect, b: CellRect): boolean {
  return a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height;
}
