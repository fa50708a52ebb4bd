import type { CellRect } from '../cells/chart';
import type { CutTask } from './cutTask';

/** An area in blocks of several cells, each with its seconds and the set of its colours, so that cuts are tried quickly. */
export interface Lattice {
  step: number;
  columns: number;
  rows: number;
  /** 32-bit words of a set of colours. */
  words: number;
  /** The set of colours of each block, `words` words each; the bit of a colour is its legend line. */
  masks: Uint32Array;
  seconds: Float64Array;
  load: Float64Array;
  /** A rectangle of blocks in cells of the canvas. */
  cellsOf(blocks: CellRect): CellRect;
  /** Column or row of the canvas at which a cut through a rectangle of blocks falls. */
  cutAt(blocks: CellRect, across: boolean, at: number): number;
}

/** Lays a lattice over the area of a task; its lines fall on multiples of the step, counted from the canvas's edge. */
export function latticeOver({ chart, seconds, load, area }: CutTask, step: number): Lattice {
  const xs = edges(area.x, area.width, step);
  const ys = edges(area.y, area.height, step);
  const [columns, rows] = [xs.length - 1, ys.length - 1];
  let highest = 0;
  for (const line of chart.cells) if (line > highest) highest = line;
  const words = Math.ceil((highest + 1) / 32);
  const masks = new Uint32Array(columns * rows * words);
  const sums = new Float64Array(columns * rows);
  const loads = new Float64Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    for (let y = ys[row]!; y < ys[row + 1]!; y++) {
      for (let column = 0; column < columns; column++) {
        const block = row * columns + column;
        for (
          let cell = y * chart.width + xs[column]!, end = y * chart.width + xs[column + 1]!;
          cell < end;
          cell++
        ) {
          const line = chart.cells[cell]!;
          if (line === 0) continue;
          masks[block * words + (line >> 5)]! |= 1 << (line & 31);
          sums[block]! += seconds[cell]!;
          loads[block]! += load[cell]!;
        }
      }
    }
  }
  return {
    step,
    columns,
    rows,
    words,
    masks,
    seconds: sums,
    load: loads,
    cellsOf: ({ x, y, width, height }) => ({
      x: xs[x]!,
      y: ys[y]!,
      width: xs[x + width]! - xs[x]!,
      height: ys[y + height]! - ys[y]!,
    }),
    cutAt: ({ x, y }, across, at) => (across ? xs[x + at]! : ys[y + at]!),
  };
}

function edges(start: number, length: number, step: number): number[] {
  const found = [start];
  for (let at = (Math.floor(start / step) + 1) * step; at < start + length; at += step) found.push(at);
  found.push(start + length);
  return found;
}
