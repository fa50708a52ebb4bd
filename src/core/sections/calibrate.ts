import type { Bitmap } from '../cells/bitmap';
import type { CellRect, Chart } from '../cells/chart';
import { type CellPart, forEachCell } from '../cells/rect';
import { EFFORTS, type Effort } from '../pace/effort';
import type { Tips } from '../placing/tips';
import { effortOf } from './effort';

/** Cells weighed for cutting, see `CutTask`. */
export interface CellWeights {
  seconds: Float32Array;
  load: Float32Array;
}

/**
 * Sets the weights of cells right by pieces whose effort is known as a whole: in each piece they then add up to what the
 * time model says of it.
 * @param each seconds that one of each effort takes
 */
export function calibrated(
  chart: Chart,
  laid: Bitmap,
  tips: Tips,
  each: Readonly<Effort>,
  rough: Float32Array,
  pieces: readonly CellPart[],
): CellWeights {
  const seconds = rough.slice();
  const load = rough.slice();
  for (const piece of pieces) {
    let sum = 0;
    forEachCell(chart, piece, (cell) => {
      sum += rough[cell]!;
    });
    if (sum === 0) continue;
    const effort = effortOf(chart, piece, laid, tips);
    const all = EFFORTS.reduce((total, kind) => total + effort[kind] * each[kind], 0);
    const bySeconds = (all - effort.colours * each.colours) / sum;
    const byLoad = all / sum;
    forEachCell(chart, piece, (cell) => {
      seconds[cell] = rough[cell]! * bySeconds;
      load[cell] = rough[cell]! * byLoad;
    });
  }
  return { seconds, load };
}

/** A grid of about so many blocks, as nearly square as can be. */
export function evenGrid(area: CellRect, pieces: number): CellRect[] {
  let best = { across: 1, down: 1, off: Infinity };
  for (let across = 1; across <= Math.min(pieces, area.width); across++) {
    const down = Math.min(area.height, Math.max(1, Math.round(pieces / across)));
    const shape = Math.abs(Math.log(area.width / across / (area.height / down)));
    const off = Math.abs(across * down - pieces) / pieces + 0.3 * shape;
    if (off < best.off) best = { across, down, off };
  }
  const { across, down } = best;
  const edge = (length: number, parts: number, at: number) => Math.round((length * at) / parts);
  return Array.from({ length: across * down }, (_, i) => {
    const [c, r] = [i % across, Math.floor(i / across)];
    const [x, y] = [edge(area.width, across, c), edge(area.height, down, r)];
    return {
      x: area.x + x,
      y: area.y + y,
      width: edge(area.width, across, c + 1) - x,
      height: edge(area.height, down, r + 1) - y,
    };
  });
}
