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

export function isInside(rect: CellRect, { x, y }: CellPlace): boolean {
  return x >= rect.x && y >= rect.y && x < rect.x + rect.width && y < rect.y + rect.height;
}

/** Visits the cells of a rectangle row by row with their index and legend line. The rectangle lies on the chart. */
export function forEachCell(chart: Chart, rect: CellRect, visit: (cell: number, line: number) => void): void {
  for (let y = rect.y; y < rect.y + rect.height; y++) {
    for (let x = rect.x; x < rect.x + rect.width; x++) {
      const cell = y * chart.width + x;
      visit(cell, chart.cells[cell]!);
    }
  }
}

/**
 * Drills per line inside a rectangle; with a bitmap, only those still to be laid. Index 0 counts bare cells.
 * @example countInRect(chart, section, highestLine(legend), null)[7] // drills of line 7 in the section
 */
export function countInRect(chart: Chart, rect: CellRect, lines: number, laid: Bitmap | null): Uint32Array {
  const counts = new Uint32Array(lines + 1);
  forEachCell(chart, rect, (cell, line) => {
    if (laid === null || !isLaid(laid, cell)) counts[line]!++;
  });
  return counts;
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
