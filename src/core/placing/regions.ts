import { type Bitmap, isLaid } from '../cells/bitmap';
import { type Chart, makeChart } from '../cells/chart';
import { type CellPart, forEachCell } from '../cells/rect';

/**
 * What is still to lay of a part of a chart, as a chart of the box around it: 0 where nothing is left, or where the box
 * reaches beyond the part.
 */
export function leftToLay(chart: Chart, part: CellPart, laid: Bitmap): Chart {
  const cells = new Uint16Array(part.width * part.height);
  forEachCell(chart, part, (cell, line, x, y) => {
    if (!isLaid(laid, cell)) cells[(y - part.y) * part.width + x - part.x] = line;
  });
  return makeChart(part.width, part.height, cells);
}

/**
 * What is still to lay, cut into regions: cells of one colour that hang together by their sides and that no border parts.
 * No placement reaches over two regions, so each can be planned by itself. Flat, for half a million cells.
 */
export interface Regions {
  /** Chart index of each cell to lay, region by region, row by row within each. */
  cells: Int32Array;
  /** Place in `cells` of the neighbour of the same region above and below; −1 for none. */
  up: Int32Array;
  down: Int32Array;
  /** 1 where the place before is the neighbour to the left. */
  left: Uint8Array;
  /** The places of each region again, column by column and downwards within each. */
  byColumn: Int32Array;
  /** Where each region starts in `cells`; the last entry is their length. */
  starts: Int32Array;
  /** Legend line of each region. */
  lines: Uint16Array;
}

/**
 * @param left to lay, see {@link leftToLay}
 * @param owners which section each cell belongs to; null where no border parts them
 */
export function regionsOf(left: Chart, owners: Int32Array | null): Regions {
  const { width, height, cells: wanted } = left;
  const count = width * height;
  let all = 0;
  for (const line of wanted) if (line !== 0) all++;
  const alike = (a: number, b: number) => wanted[a] === wanted[b] && (!owners || owners[a] === owners[b]);

  // 1. Which region each cell belongs to, by flooding; regions are numbered by their first cell.
  const regionOf = new Int32Array(count).fill(-1);
  const stack = new Int32Array(all);
  const sizes: number[] = [];
  const lineList: number[] = [];
  for (let first = 0; first < count; first++) {
    if (wanted[first] === 0 || regionOf[first] !== -1) continue;
    const region = sizes.length;
    let size = 0;
    let top = 0;
    stack[top++] = first;
    regionOf[first] = region;
    const reach = (from: number, to: number) => {
      if (regionOf[to] !== -1 || !alike(from, to)) return;
      regionOf[to] = region;
      stack[top++] = to;
    };
    while (top > 0) {
      const cell = stack[--top]!;
      size++;
      const x = cell % width;
      if (x > 0) reach(cell, cell - 1);
      if (x < width - 1) reach(cell, cell + 1);
      if (cell >= width) reach(cell, cell - width);
      if (cell < count - width) reach(cell, cell + width);
    }
    sizes.push(size);
    lineList.push(wanted[first]!);
  }

  // 2. Their cells row by row, then column by column.
  const starts = new Int32Array(sizes.length + 1);
  sizes.forEach((size, region) => {
    starts[region + 1] = starts[region]! + size;
  });
  const cells = new Int32Array(all);
  const placeOf = new Int32Array(count);
  const next = starts.slice(0, -1);
  for (let cell = 0; cell < count; cell++) {
    const region = regionOf[cell]!;
    if (region === -1) continue;
    const place = next[region]!++;
    cells[place] = cell;
    placeOf[cell] = place;
  }
  const byColumn = new Int32Array(all);
  next.set(starts.subarray(0, -1));
  for (let x = 0; x < width; x++) {
    for (let cell = x; cell < count; cell += width) {
      const region = regionOf[cell]!;
      if (region !== -1) byColumn[next[region]!++] = placeOf[cell]!;
    }
  }

  // 3. Who stands beside whom.
  const up = new Int32Array(all).fill(-1);
  const down = new Int32Array(all).fill(-1);
  const beside = new Uint8Array(all);
  for (let place = 0; place < all; place++) {
    const cell = cells[place]!;
    const region = regionOf[cell]!;
    if (cell % width > 0 && regionOf[cell - 1] === region) beside[place] = 1;
    if (cell < count - width && regionOf[cell + width] === region) {
      const below = placeOf[cell + width]!;
      down[place] = below;
      up[below] = place;
    }
  }
  return { cells, up, down, left: beside, byColumn, starts, lines: Uint16Array.from(lineList) };
}
