import { AsideCost, leastLabels } from './leastLabels';
import { settledLines } from './settledLines';
import { smoothField } from './smoothField';

/** Pixels of a cell in the straightened picture in which lines are sought. */
export const CELL_PX = 20;
/** Cells around the rectangle that are looked at too: a line may lie that far off the plain map. */
export const MARGIN = 3;
/** From this share of the height of a usual line on, one line is as good as another. */
const LINE_SHARE = 0.8;
/** What it costs to lie a cell off the plain map of the corners. */
const PLAIN_COST = 0.002;
/** How sure the four corners are: this far off (cells) costs one line. */
const CORNER_CELLS = 0.22;
/** Farther than this off a corner (cells) lies a neighbour of its line: no picture makes up for that. */
const NOT_THE_CORNER = 0.6;
const IMPOSSIBLE = 1000;

/** A picture in which every cell of a mesh is a square of {@link CELL_PX} pixels: lightness, and red against blue. */
export interface Flat {
  width: number;
  height: number;
  grey: Float32Array;
  tint: Float32Array;
}

/** Rows and columns changed. */
export function turned({ width, height, grey, tint }: Flat): Flat {
  const turn = (plane: Float32Array) => {
    const out = new Float32Array(plane.length);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) out[x * height + y] = plane[y * width + x]!;
    return out;
  };
  return { width: height, height: width, grey: turn(grey), tint: turn(tint) };
}

/** Slants of a line that are tried, in pixels of the straightened picture from one row of cells to the next; the usual ones first. */
const SLANTS = [0, -2.5, 2.5, -5, 5] as const;
/** Every so many pixels along a line it is looked at. */
const ALONG = 2;

/**
 * How strongly a line runs down through each pixel column, row of cells by row of cells, at the slant at which it does so
 * most. Only the quietest quarter of a cell's length counts: a line runs through all of it, the stroke of a symbol does
 * not.
 */
export function lineEnergy({ width, height, grey, tint }: Flat): Float32Array {
  const edge = new Float32Array(width * height);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 2; x < width - 2; x++) {
      const at = y * width + x;
      const [left, right] = [grey[at - 2]!, grey[at + 2]!];
      const ridge = Math.abs(left + right - grey[at]! * 2) * 0.5;
      const step = Math.abs(right - left) + Math.abs(tint[at + 2]! - tint[at - 2]!);
      const along =
        Math.abs(grey[at + width]! - grey[at - width]!) +
        0.5 * Math.abs(grey[at + width - 2]! - grey[at - width - 2]!) +
        0.5 * Math.abs(grey[at + width + 2]! - grey[at - width + 2]!);
      edge[at] = Math.sqrt(Math.max(0, ridge + 0.6 * step - 0.5 * along));
    }
  }
  const rows = Math.floor(height / CELL_PX);
  const energy = new Float32Array(width * rows);
  const samples = CELL_PX / ALONG;
  const asides = Int32Array.from({ length: SLANTS.length * samples }, (_, i) => {
    const k = i % samples;
    return k * ALONG * width + Math.round(SLANTS[Math.floor(i / samples)]! * ((k + 0.5) / samples - 0.5));
  });
  for (let row = 0; row < rows; row++) {
    const from = row * CELL_PX * width;
    for (let x = 5; x < width - 5; x++) {
      let most = 0;
      for (let first = 0; first < asides.length; first += samples) {
        // The three least of ten: a quarter of the length.
        let a = 9;
        let b = 9;
        let c = 9;
        for (let k = first; k < first + samples; k++) {
          const here = edge[from + x + asides[k]!]!;
          if (here >= c) continue;
          if (here < a) {
            c = b;
            b = a;
            a = here;
          } else if (here < b) {
            c = b;
            b = here;
          } else c = here;
          // They only become less: this slant is not the one.
          if (a + b + c <= most) break;
        }
        if (a + b + c > most) most = a + b + c;
      }
      energy[row * width + x] = most / 3;
    }
  }
  return energy;
}

/** A corner of cells: the line on the left of its column, and the upper edge of its row. */
export interface Anchor {
  column: number;
  row: number;
}

/**
 * How far each line lies to the right of where the mesh has it, in cells: for each of the `columns` + 1 lines in each of
 * `rows` rows of cells.
 * @param anchors corners of cells that are known to lie where the mesh has them, beside the four of the rectangle; null where
 *   nothing is known but that the mesh is nearly right
 */
export function offsets(
  flat: Flat,
  columns: number,
  rows: number,
  { reach, step, anchors }: { reach: number; step: number; anchors: readonly Anchor[] | null },
): Float32Array {
  const energy = lineEnergy(flat);
  const lines = columns + 1;
  const half = reach / step;
  const labels = 2 * half + 1;
  const anchored = anchors !== null;
  const known = new Set(
    [
      ...[0, columns].flatMap((column) => [0, rows].map((row) => ({ column, row }))),
      ...(anchors ?? []),
    ].flatMap(({ column, row }) => [
      // The corner lies between two rows of cells.
      Math.min(rows - 1, row) * lines + column,
      Math.max(0, row - 1) * lines + column,
    ]),
  );
  const slope = new AsideCost(step);
  const cost = new Float32Array(lines * rows * labels);
  for (let row = 0; row < rows; row++) {
    const strip = energy.subarray((row + MARGIN) * flat.width, (row + MARGIN + 1) * flat.width);
    // A usual line is as high as the highest place of each cell is on average, near by: light and contrast differ.
    const peaks = new Float32Array(columns + 2 * MARGIN);
    for (let i = 0; i < peaks.length; i++)
      for (let k = 0; k < CELL_PX; k++) peaks[i] = Math.max(peaks[i]!, strip[i * CELL_PX + k]!);
    for (let line = 0; line < lines; line++) {
      let [sum, count] = [1e-4, 1e-9];
      for (let i = Math.max(0, line + MARGIN - 7); i < Math.min(peaks.length, line + MARGIN + 7); i++) {
        sum += peaks[i]!;
        count++;
      }
      const usual = sum / count;
      const middle = (line + MARGIN) * CELL_PX;
      for (let d = 0; d < labels; d++) {
        // The line between two cells lies between two pixels.
        const aside = (d - half) * step;
        const x = middle + aside;
        const here = x < 1 || x >= flat.width ? 0 : (strip[x]! + strip[x - 1]!) / 2;
        let c = 1 - Math.min(1, here / (LINE_SHARE * usual)) ** 2;
        // Where nothing is seen, lines stay where the mesh has them.
        c += PLAIN_COST * (aside / CELL_PX) ** 2;
        if (anchored && known.has(row * lines + line))
          c +=
            (aside / (CORNER_CELLS * CELL_PX)) ** 2 +
            (Math.abs(aside) > NOT_THE_CORNER * CELL_PX ? IMPOSSIBLE : 0);
        cost[(row * lines + line) * labels + d] = c;
      }
    }
  }
  const chosen = anchored
    ? settledLines({ width: lines, height: rows, labels, cost, plain: half, period: CELL_PX / step }, slope)
    : leastLabels(cost, lines, rows, labels, slope);
  const found = new Float32Array(lines * rows);
  const trust = new Float32Array(lines * rows);
  for (let at = 0; at < found.length; at++) {
    const best = chosen[at]!;
    const near = Math.ceil(3 / step);
    // Between the pixels: the middle of what is as good as the best nearby.
    let [weight, sum] = [0, 0];
    for (let d = Math.max(0, best - near); d <= Math.min(labels - 1, best + near); d++) {
      const good = Math.max(0, 1 - cost[at * labels + d]!);
      weight += good;
      sum += good * (d - half) * step;
    }
    found[at] = (weight > 0.05 ? sum / weight : (best - half) * step) / CELL_PX;
    trust[at] = Math.max(0.05, 1 - cost[at * labels + best]!);
  }
  return smoothField(found, trust, lines, rows, 3);
}
