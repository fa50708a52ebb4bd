import type { Homography } from './homography';
import { mapped } from './homography';
import { type Planes, valueAt } from './photo';
import { smoothField } from './smoothField';

/** Where the corners of cells lie in a photograph, in its pixels; row by row, (columns + 1) × (rows + 1) of them. */
export interface Mesh {
  columns: number;
  rows: number;
  x: Float32Array;
  y: Float32Array;
}

/** Pixels of a cell in the straightened picture in which lines are sought. */
const CELL_PX = 20;
/** Cells around the rectangle that are looked at too: a line may lie that far off the plain map. */
const MARGIN = 3;
/** How far lines are sought around where they are thought to be, in pixels of the straightened picture, round by round. */
const ROUNDS = [
  { reach: 42, step: 2 },
  { reach: 8, step: 1 },
  { reach: 4, step: 1 },
] as const;
/**
 * From one cell to the next a line may go aside by a few pixels, at little cost a pixel; every further one costs much, so
 * that no line jumps to the place of its neighbour.
 */
const SLOPE_PX = 5;
const SLOPE_COST = 0.08;
const JUMP_COST = 2;
/** From this share of the height of a usual line on, one line is as good as another. */
const LINE_SHARE = 0.8;
const DATA_WEIGHT = 1;
/** What it costs to lie a cell off the plain map of the corners. */
const PLAIN_COST = 0.002;
/** How sure the four corners are: this far off (cells) costs one line. */
const CORNER_CELLS = 0.22;

/** The mesh of a map without any waves. */
export function plainMesh(map: Homography, columns: number, rows: number): Mesh {
  const x = new Float32Array((columns + 1) * (rows + 1));
  const y = new Float32Array(x.length);
  for (let j = 0; j <= rows; j++) {
    for (let i = 0; i <= columns; i++) {
      const at = j * (columns + 1) + i;
      [x[at], y[at]] = mapped(map, i, j) as [number, number];
    }
  }
  return { columns, rows, x, y };
}

/**
 * Follows the printed lines of the grid. A canvas is never flat, so that lines lie up to two cells off the plain map of
 * its corners. In a straightened picture each crossing of a line with a row of cells may be off by so much or so much; what
 * fits the picture and changes little from cell to cell is found by passing messages over the grid, in three rounds, each
 * from the mesh of the one before.
 * @param map takes columns and rows of cells to pixels of the photograph
 */
export function refinedMesh(planes: Planes, map: Homography, columns: number, rows: number): Mesh {
  let mesh = plainMesh(map, columns, rows);
  for (const [round, { reach, step }] of ROUNDS.entries()) {
    const wide = widened(mesh, MARGIN);
    const flat = straightened(planes, wide);
    const across = offsets(flat, columns, rows, { reach, step, anchored: round === 0 });
    const down = offsets(turned(flat), rows, columns, { reach, step, anchored: round === 0 });
    mesh = moved(mesh, across, turnedField(down, rows, columns));
  }
  return mesh;
}

/** The mesh with more cells around it, going on as its edge does. */
function widened(mesh: Mesh, margin: number): Mesh {
  const [columns, rows] = [mesh.columns + 2 * margin, mesh.rows + 2 * margin];
  const wide: Mesh = {
    columns,
    rows,
    x: new Float32Array((columns + 1) * (rows + 1)),
    y: new Float32Array((columns + 1) * (rows + 1)),
  };
  const inner = (values: Float32Array, i: number, j: number) => values[j * (mesh.columns + 1) + i]!;
  // Beyond the edge a straight line goes on through the edge and a node some cells inside, which steadies it.
  const along = (length: number, i: number): [number, number, number] => {
    const far = Math.min(4, length);
    if (i < 0) return [0, far, i / far];
    if (i > length) return [length, length - far, (length - i) / far];
    return [i, i, 0];
  };
  for (let j = 0; j <= rows; j++) {
    for (let i = 0; i <= columns; i++) {
      const [i0, i1, s] = along(mesh.columns, i - margin);
      const [j0, j1, t] = along(mesh.rows, j - margin);
      const at = j * (columns + 1) + i;
      for (const axis of ['x', 'y'] as const) {
        const base = inner(mesh[axis], i0, j0);
        wide[axis][at] =
          base + s * (inner(mesh[axis], i1, j0) - base) + t * (inner(mesh[axis], i0, j1) - base);
      }
    }
  }
  return wide;
}

/** A picture in which every cell of a mesh is a square of {@link CELL_PX} pixels: lightness, and red against blue. */
interface Flat {
  width: number;
  height: number;
  grey: Float32Array;
  tint: Float32Array;
}

function straightened({ width: w, height: h, factor, grey, red, blue }: Planes, mesh: Mesh): Flat {
  const [width, height] = [mesh.columns * CELL_PX, mesh.rows * CELL_PX];
  const flat: Flat = {
    width,
    height,
    grey: new Float32Array(width * height),
    tint: new Float32Array(width * height),
  };
  const stride = mesh.columns + 1;
  for (let y = 0; y < height; y++) {
    const j = Math.floor(y / CELL_PX);
    const t = (y + 0.5) / CELL_PX - j;
    for (let i = 0; i < mesh.columns; i++) {
      const at = j * stride + i;
      const [left, right] = [
        [mesh.x[at]! * (1 - t) + mesh.x[at + stride]! * t, mesh.y[at]! * (1 - t) + mesh.y[at + stride]! * t],
        [
          mesh.x[at + 1]! * (1 - t) + mesh.x[at + stride + 1]! * t,
          mesh.y[at + 1]! * (1 - t) + mesh.y[at + stride + 1]! * t,
        ],
      ] as const;
      for (let k = 0; k < CELL_PX; k++) {
        const s = (k + 0.5) / CELL_PX;
        const px = (left[0]! * (1 - s) + right[0]! * s) / factor;
        const py = (left[1]! * (1 - s) + right[1]! * s) / factor;
        const here = y * width + i * CELL_PX + k;
        flat.grey[here] = valueAt(grey, w, h, px, py);
        flat.tint[here] = Math.sqrt(valueAt(red, w, h, px, py)) - Math.sqrt(valueAt(blue, w, h, px, py));
      }
    }
  }
  return flat;
}

/** Rows and columns changed. */
function turned({ width, height, grey, tint }: Flat): Flat {
  const turn = (plane: Float32Array) => {
    const out = new Float32Array(plane.length);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) out[x * height + y] = plane[y * width + x]!;
    return out;
  };
  return { width: height, height: width, grey: turn(grey), tint: turn(tint) };
}

/** Slants of a line that are tried, in pixels of the straightened picture from one row of cells to the next. */
const SLANTS = [-5, -2.5, 0, 2.5, 5] as const;
/** Every so many pixels along a line it is looked at. */
const ALONG = 2;

/**
 * How strongly a line runs down through each pixel column, row of cells by row of cells, at the slant at which it does so
 * most. Only the quietest quarter of a cell's length counts: a line runs through all of it, the stroke of a symbol does
 * not.
 */
function lineEnergy({ width, height, grey, tint }: Flat): Float32Array {
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
  const asides = SLANTS.map((slant) =>
    Array.from({ length: samples }, (_, k) => Math.round(slant * ((k + 0.5) / samples - 0.5))),
  );
  for (let row = 0; row < rows; row++) {
    const from = row * CELL_PX * width;
    for (let x = 5; x < width - 5; x++) {
      let most = 0;
      for (let slant = 0; slant < SLANTS.length; slant++) {
        // The three least of ten: a quarter of the length.
        let [a, b, c] = [9, 9, 9];
        for (let k = 0; k < samples; k++) {
          const here = edge[from + k * ALONG * width + x + asides[slant]![k]!]!;
          if (here >= c) continue;
          if (here < a) [a, b, c] = [here, a, b];
          else if (here < b) [b, c] = [here, b];
          else c = here;
        }
        most = Math.max(most, (a + b + c) / 3);
      }
      energy[row * width + x] = most;
    }
  }
  return energy;
}

/**
 * How far each line lies to the right of where the mesh has it, in cells: for each of the `columns` + 1 lines in each of
 * `rows` rows of cells.
 */
function offsets(
  flat: Flat,
  columns: number,
  rows: number,
  { reach, step, anchored }: { reach: number; step: number; anchored: boolean },
): Float32Array {
  const energy = lineEnergy(flat);
  const lines = columns + 1;
  const half = reach / step;
  const labels = 2 * half + 1;
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
        let c = DATA_WEIGHT * (1 - Math.min(1, here / (LINE_SHARE * usual)) ** 2);
        if (anchored) c += PLAIN_COST * (aside / CELL_PX) ** 2;
        if (anchored && (line === 0 || line === columns) && (row === 0 || row === rows - 1))
          c += (aside / (CORNER_CELLS * CELL_PX)) ** 2;
        cost[(row * lines + line) * labels + d] = c;
      }
    }
  }
  const chosen = leastLabels(cost, lines, rows, labels, slope);
  const found = new Float32Array(lines * rows);
  const trust = new Float32Array(lines * rows);
  for (let at = 0; at < found.length; at++) {
    const best = chosen[at]!;
    const near = Math.ceil(3 / step);
    // Between the pixels: the middle of what is as good as the best nearby.
    let [weight, sum] = [0, 0];
    for (let d = Math.max(0, best - near); d <= Math.min(labels - 1, best + near); d++) {
      const good = Math.max(0, 1 - cost[at * labels + d]! / DATA_WEIGHT);
      weight += good;
      sum += good * (d - half) * step;
    }
    found[at] = (weight > 0.05 ? sum / weight : (best - half) * step) / CELL_PX;
    trust[at] = Math.max(0.05, 1 - cost[at * labels + best]! / DATA_WEIGHT);
  }
  return smoothField(found, trust, lines, rows, 3);
}

/** Rounds in which what is known passes over the grid and back. */
const PASSES = 6;

/**
 * The label of each node of a grid that makes the sum of all costs about the least: messages between neighbours, passed
 * row by row to the end and back (sequential tree-reweighted message passing, Kolmogorov 2006, from memory), so that the
 * four corners are heard everywhere.
 * @param cost labels of a node one after the other, nodes row by row
 */
function leastLabels(
  cost: Float32Array,
  width: number,
  height: number,
  labels: number,
  slope: AsideCost,
): Int16Array {
  // Messages that came to each node from the left, above, the right and below.
  const came = Array.from({ length: 4 }, () => new Float32Array(cost.length)) as [
    Float32Array,
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const [LEFT, ABOVE, RIGHT, BELOW] = [0, 1, 2, 3];
  const sum = new Float32Array(labels);
  const told = new Float32Array(labels);
  const gather = (node: number) => {
    const at = node * labels;
    for (let d = 0; d < labels; d++)
      sum[d] = cost[at + d]! + came[0][at + d]! + came[1][at + d]! + came[2][at + d]! + came[3][at + d]!;
  };
  const tell = (node: number, to: number, from: number, into: number) => {
    // What a node hears back from the one that it tells is not told to it again.
    const back = came[from]!;
    for (let d = 0; d < labels; d++) told[d] = sum[d]! * 0.5 - back[node * labels + d]!;
    slope.spread(told, labels);
    let least = Number.POSITIVE_INFINITY;
    for (let d = 0; d < labels; d++) least = Math.min(least, told[d]!);
    const message = came[into]!;
    for (let d = 0; d < labels; d++) message[to * labels + d] = told[d]! - least;
  };
  for (let pass = 0; pass < PASSES; pass++) {
    for (let node = 0; node < width * height; node++) {
      gather(node);
      if (node % width < width - 1) tell(node, node + 1, RIGHT!, LEFT!);
      if (node < width * (height - 1)) tell(node, node + width, BELOW!, ABOVE!);
    }
    for (let node = width * height - 1; node >= 0; node--) {
      gather(node);
      if (node % width > 0) tell(node, node - 1, LEFT!, RIGHT!);
      if (node >= width) tell(node, node - width, ABOVE!, BELOW!);
    }
  }
  const chosen = new Int16Array(width * height);
  for (let node = 0; node < chosen.length; node++) {
    const at = node * labels;
    let [best, least] = [0, Number.POSITIVE_INFINITY];
    for (let d = 0; d < labels; d++) {
      let c = cost[at + d]! + came[RIGHT!]![at + d]! + came[BELOW!]![at + d]!;
      if (node % width > 0) c += slope.of(d - chosen[node - 1]!);
      if (node >= width) c += slope.of(d - chosen[node - width]!);
      if (c < least) [best, least] = [d, c];
    }
    chosen[node] = best;
  }
  return chosen;
}

/** What it costs to lie further aside than the neighbour, for labels that lie some pixels apart. */
class AsideCost {
  private readonly free: number;
  private readonly slope: number;
  private readonly jump: number;
  private readonly nearest = new Float32Array(256);

  constructor(step: number) {
    this.free = Math.round(SLOPE_PX / step);
    this.slope = SLOPE_COST * step;
    this.jump = JUMP_COST * step;
  }

  /** @param labels between the two */
  of(labels: number): number {
    const far = Math.abs(labels);
    return far <= this.free ? far * this.slope : this.free * this.slope + (far - this.free) * this.jump;
  }

  /** For each label the least of all costs and the way from there, in place. */
  spread(costs: Float32Array, labels: number): void {
    const { nearest, free, slope, jump } = this;
    for (let d = 0; d < labels; d++) {
      let cheapest = costs[d]!;
      for (let k = 1; k <= free; k++) {
        if (d >= k) cheapest = Math.min(cheapest, costs[d - k]! + k * slope);
        if (d + k < labels) cheapest = Math.min(cheapest, costs[d + k]! + k * slope);
      }
      nearest[d] = cheapest;
    }
    for (let d = 1; d < labels; d++) nearest[d] = Math.min(nearest[d]!, nearest[d - 1]! + jump);
    for (let d = labels - 2; d >= 0; d--) nearest[d] = Math.min(nearest[d]!, nearest[d + 1]! + jump);
    for (let d = 0; d < labels; d++) costs[d] = nearest[d]!;
  }
}

function turnedField(field: Float32Array, lines: number, columns: number): Float32Array {
  // `lines` + 1 values a column of cells become one row of values a line.
  const out = new Float32Array(field.length);
  for (let column = 0; column < columns; column++)
    for (let line = 0; line <= lines; line++)
      out[line * columns + column] = field[column * (lines + 1) + line]!;
  return out;
}

/**
 * The mesh moved along its own cells.
 * @param across how far each of the vertical lines is off in each row of cells, in cells
 * @param down how far each of the horizontal lines is off in each column of cells, line by line
 */
function moved(mesh: Mesh, across: Float32Array, down: Float32Array): Mesh {
  const { columns, rows } = mesh;
  const stride = columns + 1;
  const next: Mesh = { columns, rows, x: mesh.x.slice(), y: mesh.y.slice() };
  for (let j = 0; j <= rows; j++) {
    for (let i = 0; i <= columns; i++) {
      // At the edge of the rectangle the half cell that is missing goes on as the one inside.
      const [j0, j1] = [Math.max(0, j - 1), Math.min(rows - 1, j)];
      let u = (across[j0 * stride + i]! + across[j1 * stride + i]!) / 2;
      if (rows > 1 && (j === 0 || j === rows)) {
        const [edge, inner] = j === 0 ? [0, 1] : [rows - 1, rows - 2];
        u = across[edge * stride + i]! * 1.5 - across[inner * stride + i]! * 0.5;
      }
      const [i0, i1] = [Math.max(0, i - 1), Math.min(columns - 1, i)];
      let v = (down[j * columns + i0]! + down[j * columns + i1]!) / 2;
      if (columns > 1 && (i === 0 || i === columns)) {
        const [edge, inner] = i === 0 ? [0, 1] : [columns - 1, columns - 2];
        v = down[j * columns + edge]! * 1.5 - down[j * columns + inner]! * 0.5;
      }
      shift(mesh, next, i, j, u, v);
    }
  }
  return next;
}

/** Moves one node of a mesh by parts of its cells. */
function shift(mesh: Mesh, next: Mesh, i: number, j: number, u: number, v: number): void {
  const { columns, rows, x, y } = mesh;
  const stride = columns + 1;
  const at = j * stride + i;
  const [west, east] = [i > 0 ? at - 1 : at, i < columns ? at + 1 : at];
  const [north, south] = [j > 0 ? at - stride : at, j < rows ? at + stride : at];
  const [wide, tall] = [i > 0 && i < columns ? 2 : 1, j > 0 && j < rows ? 2 : 1];
  next.x[at] = x[at]! + (u * (x[east]! - x[west]!)) / wide + (v * (x[south]! - x[north]!)) / tall;
  next.y[at] = y[at]! + (u * (y[east]! - y[west]!)) / wide + (v * (y[south]! - y[north]!)) / tall;
}

/** The mesh moved by what its cells themselves say, cell by cell. @param u across and v down, in cells, a value a cell */
export function meshMovedByCells(mesh: Mesh, u: Float32Array, v: Float32Array): Mesh {
  const { columns, rows } = mesh;
  const next: Mesh = { columns, rows, x: mesh.x.slice(), y: mesh.y.slice() };
  for (let j = 0; j <= rows; j++) {
    for (let i = 0; i <= columns; i++) {
      let [su, sv, n] = [0, 0, 0];
      for (const [ci, cj] of [
        [i - 1, j - 1],
        [i, j - 1],
        [i - 1, j],
        [i, j],
      ] as const) {
        if (ci < 0 || cj < 0 || ci >= columns || cj >= rows) continue;
        su += u[cj * columns + ci]!;
        sv += v[cj * columns + ci]!;
        n++;
      }
      shift(mesh, next, i, j, su / n, sv / n);
    }
  }
  return next;
}

/** A place inside a cell in pixels of the photograph. @param s across and t down, 0…1 */
export function placeInCell(mesh: Mesh, column: number, row: number, s: number, t: number): [number, number] {
  const stride = mesh.columns + 1;
  const at = row * stride + column;
  const between = (values: Float32Array) =>
    (values[at]! * (1 - s) + values[at + 1]! * s) * (1 - t) +
    (values[at + stride]! * (1 - s) + values[at + stride + 1]! * s) * t;
  return [between(mesh.x), between(mesh.y)];
}
