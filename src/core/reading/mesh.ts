import { type Homography, mapped } from '../view/projective';
import { CELL_PX, type Flat, MARGIN, offsets, turned } from './gridLines';
import { emptyChannels, emptyPlaces, type SmallPhoto, valuesAt } from './photo';

/** Where the corners of cells lie in a photograph, in its pixels; row by row, (columns + 1) × (rows + 1) of them. */
export interface Mesh {
  columns: number;
  rows: number;
  x: Float32Array;
  y: Float32Array;
}

/** How far lines are sought around where they are thought to be, in pixels of the straightened picture, round by round. */
const ROUNDS = [
  { reach: 52, step: 2 },
  { reach: 8, step: 1 },
] as const;
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

/** A corner of cells that somebody put in its place: column and row of the corner, and pixels of the photograph. */
export interface Pin {
  column: number;
  row: number;
  x: number;
  y: number;
}

/**
 * Follows the printed lines of the grid. A canvas is never flat, so that lines lie up to two cells off the plain map of
 * its corners. In a straightened picture each crossing of a line with a row of cells may be off by so much or so much; what
 * fits the picture and changes little from cell to cell is found by passing messages over the grid, in two rounds, each
 * from the mesh of the one before.
 * @param map takes columns and rows of cells to pixels of the photograph
 * @param pins what somebody set right: the mesh runs through them, and lines nearby are not taken for their neighbours
 */
export function refinedMesh(
  small: SmallPhoto,
  map: Homography,
  columns: number,
  rows: number,
  pins: readonly Pin[] = [],
): Mesh {
  let mesh =
    pins.length > 0 ? throughPins(plainMesh(map, columns, rows), pins) : plainMesh(map, columns, rows);
  const held = { across: pins, down: pins.map(({ column, row }) => ({ column: row, row: column })) };
  for (const [round, { reach, step }] of ROUNDS.entries()) {
    const wide = widened(mesh, MARGIN);
    const flat = straightened(small, wide);
    const across = offsets(flat, columns, rows, { reach, step, anchors: round === 0 ? held.across : null });
    const down = offsets(turned(flat), rows, columns, {
      reach,
      step,
      anchors: round === 0 ? held.down : null,
    });
    mesh = moved(mesh, across, turnedField(down, rows, columns));
  }
  return mesh;
}

/** How far a pin draws what lies around it along, in cells. */
const PIN_REACH = 8;

/** The mesh drawn to where pins are: each draws what is near, the corners stay. */
function throughPins(mesh: Mesh, pins: readonly Pin[]): Mesh {
  const { columns, rows } = mesh;
  const stride = columns + 1;
  const corners = [0, columns].flatMap((column) =>
    [0, rows].map((row) => ({
      ...{ column, row },
      x: mesh.x[row * stride + column]!,
      y: mesh.y[row * stride + column]!,
    })),
  );
  const all = [...corners, ...pins].map((pin) => {
    const at = pin.row * stride + pin.column;
    return { ...pin, dx: pin.x - mesh.x[at]!, dy: pin.y - mesh.y[at]! };
  });
  const next: Mesh = { columns, rows, x: mesh.x.slice(), y: mesh.y.slice() };
  for (let row = 0; row <= rows; row++) {
    for (let column = 0; column <= columns; column++) {
      let [weight, dx, dy] = [0.02, 0, 0];
      for (const pin of all) {
        const far = ((pin.column - column) ** 2 + (pin.row - row) ** 2) / PIN_REACH ** 2;
        const near = 1 / (far * far + 1e-6);
        weight += near;
        dx += near * pin.dx;
        dy += near * pin.dy;
      }
      const at = row * stride + column;
      next.x[at]! += dx / weight;
      next.y[at]! += dy / weight;
    }
  }
  return next;
}

/** The mesh with more cells around it, going on as its edge does. */
export function widened(mesh: Mesh, margin: number): Mesh {
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

/** The picture in which a mesh is a plain grid. */
export function straightened(small: SmallPhoto, mesh: Mesh): Flat {
  const [width, height] = [mesh.columns * CELL_PX, mesh.rows * CELL_PX];
  const flat: Flat = {
    width,
    height,
    grey: new Float32Array(width * height),
    tint: new Float32Array(width * height),
  };
  const places = emptyPlaces(width);
  const seen = emptyChannels(width);
  const [red, , blue, lightness] = seen;
  const stride = mesh.columns + 1;
  for (let y = 0; y < height; y++) {
    const j = Math.floor(y / CELL_PX);
    const t = (y + 0.5) / CELL_PX - j;
    for (const axis of ['x', 'y'] as const) {
      const nodes = mesh[axis];
      const along = places[axis];
      for (let i = 0; i < mesh.columns; i++) {
        const at = j * stride + i;
        const left = nodes[at]! * (1 - t) + nodes[at + stride]! * t;
        const right = nodes[at + 1]! * (1 - t) + nodes[at + stride + 1]! * t;
        for (let k = 0; k < CELL_PX; k++) {
          const s = (k + 0.5) / CELL_PX;
          along[i * CELL_PX + k] = left * (1 - s) + right * s;
        }
      }
    }
    valuesAt(small, places, seen);
    flat.grey.set(lightness, y * width);
    for (let x = 0; x < width; x++) flat.tint[y * width + x] = Math.sqrt(red[x]!) - Math.sqrt(blue[x]!);
  }
  return flat;
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
export function placeInCell(
  { columns, x, y }: Mesh,
  column: number,
  row: number,
  s: number,
  t: number,
): [number, number] {
  const at = row * (columns + 1) + column;
  const below = at + columns + 1;
  const [upperLeft, upperRight, lowerLeft, lowerRight] = [(1 - s) * (1 - t), s * (1 - t), (1 - s) * t, s * t];
  return [
    x[at]! * upperLeft + x[at + 1]! * upperRight + x[below]! * lowerLeft + x[below + 1]! * lowerRight,
    y[at]! * upperLeft + y[at + 1]! * upperRight + y[below]! * lowerLeft + y[below + 1]! * lowerRight,
  ];
}

/** The corner of cells that lies nearest to a place of the photograph: the cell to its lower right. */
export function cornerNear({ columns, x, y }: Mesh, [px, py]: readonly [number, number]): CellSpot {
  let [best, least] = [0, Number.POSITIVE_INFINITY];
  for (let at = 0; at < x.length; at++) {
    const far = (x[at]! - px) ** 2 + (y[at]! - py) ** 2;
    if (far < least) [best, least] = [at, far];
  }
  return { column: best % (columns + 1), row: Math.floor(best / (columns + 1)) };
}

/** The cell in whose middle a place of the photograph lies nearest; null where it lies beside all of them. */
export function cellNear(mesh: Mesh, [px, py]: readonly [number, number]): CellSpot | null {
  let [best, least, size] = [-1, Number.POSITIVE_INFINITY, 0];
  for (let cell = 0; cell < mesh.columns * mesh.rows; cell++) {
    const [column, row] = [cell % mesh.columns, Math.floor(cell / mesh.columns)];
    const [x, y] = placeInCell(mesh, column, row, 0.5, 0.5);
    const far = Math.hypot(x - px, y - py);
    if (far >= least) continue;
    const [ex, ey] = placeInCell(mesh, column, row, 0, 0);
    [best, least, size] = [cell, far, Math.hypot(x - ex, y - ey)];
  }
  return least > size * 1.2 ? null : { column: best % mesh.columns, row: Math.floor(best / mesh.columns) };
}

interface CellSpot {
  column: number;
  row: number;
}
