import { homographyTo, mapped } from '../view/projective';
import { gaussianWeights } from './gaussian';
import type { Corners } from './homography';
import { type Mesh, placeInCell } from './mesh';
import { type Planes, valueAt } from './photo';

/** Pixels along a side of the picture of a cell. */
export const LOOK_SIDE = 16;
export const LOOK_PIXELS = LOOK_SIDE * LOOK_SIDE;
/** What is left out at each edge of a cell, where the printed lines are, as a share of its side. */
export const EDGE = 0.09;
/** Pixels of the picture at each edge that tell the tint, for no symbol reaches there. */
const RIM = 2;

/** What cells look like: their symbol without its tint, and the tint. */
export interface CellLooks {
  count: number;
  /** Lightness less that of the tint, of length 1 over each cell; {@link LOOK_PIXELS} a cell. */
  glyphs: Float32Array;
  /** Linear light of the tint, three values a cell. */
  tints: Float32Array;
  /** Share of the pixels that are at the top of what the camera takes, 0…1. */
  clipped: Float32Array;
}

function emptyLooks(count: number): CellLooks {
  return {
    count,
    glyphs: new Float32Array(count * LOOK_PIXELS),
    tints: new Float32Array(count * 3),
    clipped: new Float32Array(count),
  };
}

/** Looks at every cell of a mesh. */
export function looksOf(planes: Planes, mesh: Mesh): CellLooks {
  const looks = emptyLooks(mesh.columns * mesh.rows);
  for (let cell = 0; cell < looks.count; cell++) {
    const [column, row] = [cell % mesh.columns, Math.floor(cell / mesh.columns)];
    lookInto(planes, looks, cell, (s, t) => placeInCell(mesh, column, row, s, t));
  }
  return looks;
}

/** Looks at single pieces, each told by its four corners in pixels of the photograph. */
export function looksOfPieces(planes: Planes, pieces: readonly Corners[]): CellLooks {
  const looks = emptyLooks(pieces.length);
  pieces.forEach((corners, i) => {
    const map = homographyTo(corners, 1, 1);
    lookInto(planes, looks, i, (s, t) => mapped(map, s, t));
  });
  return looks;
}

const CLIPPED = 0.985;
const rim: number[] = [];
for (let k = 0; k < LOOK_PIXELS; k++) {
  const [x, y] = [k % LOOK_SIDE, Math.floor(k / LOOK_SIDE)];
  if (x < RIM || y < RIM || x >= LOOK_SIDE - RIM || y >= LOOK_SIDE - RIM) rim.push(k);
}
const values = [0, 1, 2, 3].map(() => new Float32Array(LOOK_PIXELS)) as [
  Float32Array,
  Float32Array,
  Float32Array,
  Float32Array,
];
const edge = new Float32Array(rim.length);

function lookInto(
  { width, height, factor, red, green, blue, grey }: Planes,
  looks: CellLooks,
  at: number,
  place: (s: number, t: number) => readonly [number, number],
): void {
  const [r, g, b, l] = values;
  let clipped = 0;
  for (let k = 0; k < LOOK_PIXELS; k++) {
    const s = EDGE + ((1 - 2 * EDGE) * ((k % LOOK_SIDE) + 0.5)) / LOOK_SIDE;
    const t = EDGE + ((1 - 2 * EDGE) * (Math.floor(k / LOOK_SIDE) + 0.5)) / LOOK_SIDE;
    const spot = place(s, t);
    const [x, y] = [spot[0] / factor, spot[1] / factor];
    r[k] = valueAt(red, width, height, x, y);
    g[k] = valueAt(green, width, height, x, y);
    b[k] = valueAt(blue, width, height, x, y);
    l[k] = valueAt(grey, width, height, x, y);
    if (Math.min(r[k]!, g[k]!, b[k]!) > CLIPPED) clipped++;
  }
  looks.clipped[at] = clipped / LOOK_PIXELS;
  const middle = (plane: Float32Array) => {
    for (let k = 0; k < rim.length; k++) edge[k] = plane[rim[k]!]!;
    edge.sort();
    return edge[edge.length >> 1]!;
  };
  looks.tints[at * 3] = middle(r);
  looks.tints[at * 3 + 1] = middle(g);
  looks.tints[at * 3 + 2] = middle(b);
  const ground = middle(l);
  let sum = 0;
  for (let k = 0; k < LOOK_PIXELS; k++) sum += (l[k]! - ground) ** 2;
  const length = Math.sqrt(sum);
  for (let k = 0; k < LOOK_PIXELS; k++)
    looks.glyphs[at * LOOK_PIXELS + k] = length > 1e-6 ? (l[k]! - ground) / length : 0;
}

/** A glyph blurred by a Gaussian and of length 1 again. @param sigma in its own pixels */
export function blurredGlyph(glyph: Float32Array, sigma: number): Float32Array {
  if (sigma <= 0) return glyph.slice();
  const weights = gaussianWeights(sigma);
  const radius = weights.length >> 1;
  const pass = (from: Float32Array, step: number, other: number) => {
    const out = new Float32Array(LOOK_PIXELS);
    for (let line = 0; line < LOOK_SIDE; line++) {
      for (let i = 0; i < LOOK_SIDE; i++) {
        let [value, all] = [0, 0];
        for (let k = -radius; k <= radius; k++) {
          const j = i + k;
          // Beyond the edge lies the ground, which is 0.
          all += weights[k + radius]!;
          if (j >= 0 && j < LOOK_SIDE) value += weights[k + radius]! * from[line * other + j * step]!;
        }
        out[line * other + i * step] = value / all;
      }
    }
    return out;
  };
  return unit(pass(pass(glyph, 1, LOOK_SIDE), LOOK_SIDE, 1));
}

/** The same of length 1; nothing stays nothing. */
export function unit(vector: Float32Array): Float32Array {
  let sum = 0;
  for (const value of vector) sum += value * value;
  const length = Math.sqrt(sum);
  return length < 1e-9 ? vector : vector.map((value) => value / length);
}
