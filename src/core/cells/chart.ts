/**
 * The picture as cells, row by row from the top left. `0` means "no drill here", `n` means legend line `n`.
 * Everything reads this one structure, so it stays flat: two bytes a cell.
 */
export interface Chart {
  width: number;
  height: number;
  /** width × height values, row-major. */
  cells: Uint16Array;
}

/** A part of a chart in cells: column and row from 0, end exclusive. */
export interface CellRect {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** @throws Error when the number of cells is not width × height. */
export function makeChart(width: number, height: number, cells: Uint16Array): Chart {
  if (cells.length !== width * height) {
    throw new Error(`A chart of ${width} × ${height} has ${width * height} squares, not ${cells.length}.`);
  }
  return { width, height, cells };
}

/** The chart of a canvas whose picture is unknown: every cell wants some drill (line 1). */
export function plainCloth(width: number, height: number): Chart {
  return makeChart(width, height, new Uint16Array(width * height).fill(1));
}

/** Drills per legend line; index 0 counts the cells without a drill. @param lines highest legend line */
export function countPerLine(chart: Chart, lines: number): Uint32Array {
  const counts = new Uint32Array(lines + 1);
  for (const cell of chart.cells) if (cell <= lines) counts[cell]!++;
  return counts;
}

/** Cells that want a drill. */
export function countDrills(chart: Chart): number {
  let drills = 0;
  for (const cell of chart.cells) if (cell !== 0) drills++;
  return drills;
}

/** Bytes as stored and sent: unsigned 16 bit, little endian, row-major. */
export function chartToBytes(chart: Chart): Uint8Array {
  const bytes = new Uint8Array(chart.cells.length * 2);
  const view = new DataView(bytes.buffer);
  chart.cells.forEach((cell, i) => {
    view.setUint16(i * 2, cell, true);
  });
  return bytes;
}

/** Inverse of {@link chartToBytes}. @throws Error when the length does not fit the size. */
export function chartFromBytes(width: number, height: number, bytes: Uint8Array): Chart {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const cells = new Uint16Array(bytes.byteLength >> 1);
  for (let i = 0; i < cells.length; i++) cells[i] = view.getUint16(i * 2, true);
  return makeChart(width, height, cells);
}
