import type { CellRect } from '../cells/chart';
import { makeChart } from '../cells/chart';
import type { PrintedCell, Scene } from './camera';

/** A printed colour list before the simulated camera. */
export interface ListScene {
  scene: Scene;
  columns: number;
  rows: number;
  /** Where each swatch lies, in squares of the scene. */
  at: { line: number; column: number; row: number }[];
  /** Its columns of swatches, from the first to the last one of each, in squares of the scene. */
  blocks: { rect: CellRect; lines: number[] }[];
}

/** Swatches below each other, with white paper around each. */
export function listScene(
  lines: readonly number[],
  prints: ReadonlyMap<number, PrintedCell>,
  most = 20,
): ListScene {
  const across = Math.max(1, Math.ceil(lines.length / most));
  const down = Math.ceil(lines.length / across);
  const [columns, rows] = [across * 2 + 1, down * 2 + 1];
  const cells = new Uint16Array(columns * rows);
  const at = lines.map((line, i) => ({
    line,
    column: 1 + 2 * Math.floor(i / down),
    row: 1 + 2 * (i % down),
  }));
  for (const { line, column, row } of at) cells[row * columns + column] = line;
  const blocks = Array.from({ length: across }, (_, i) => {
    const own = lines.slice(i * down, (i + 1) * down);
    return { rect: { x: 1 + 2 * i, y: 1, width: 1, height: own.length * 2 - 1 }, lines: own };
  });
  return {
    scene: { chart: makeChart(columns, rows, cells), prints, lineWidth: 0.05 },
    columns,
    rows,
    at,
    blocks,
  };
}
