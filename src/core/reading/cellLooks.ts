import { homographyTo, mapped } from '../view/projective';
import { gaussianWeights } from './gaussian';
import type { Corners } from './homography';
import { FULL } from './light';
import { medianOf } from './median';
import type { Mesh } from './mesh';
import { emptyChannels, emptyPlaces, type SmallPhoto, valuesAt } from './photo';

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

/** Looks of so many cells, all of them still dark and without a glyph. */
export function emptyLooks(count: number): CellLooks {
  return {
    count,
    glyphs: new Float32Array(count * LOOK_PIXELS),
    tints: new Float32Array(count * 3),
    clipped: new Float32Array(count),
  };
}

/** Looks at every cell of a mesh. */
export function looksOf(small: SmallPhoto, mesh: Mesh): CellLooks {
  const looks = emptyLooks(mesh.columns * mesh.rows);
  const { columns } = mesh;
  for (let cell = 0; cell < looks.count; cell++) {
    const at = Math.floor(cell / columns) * (columns + 1) + (cell % columns);
    const below = at + columns + 1;
    for (const axis of ['x', 'y'] as const) {
      const [nodes, along] = [mesh[axis], places[axis]];
      const [a, b, c, d] = [nodes[at]!, nodes[at + 1]!, nodes[below]!, nodes[below + 1]!];
      for (let k = 0, w = 0; k < LOOK_PIXELS; k++, w += 4)
        along[k] = a * WEIGHTS[w]! + b * WEIGHTS[w + 1]! + c * WEIGHTS[w + 2]! + d * WEIGHTS[w + 3]!;
    }
    look(small, looks, cell);
  }
  return looks;
}

/** Looks at single pieces, each told by its four corners in pixels of the photograph. */
export function looksOfPieces(small: SmallPhoto, pieces: readonly Corners[]): CellLooks {
  const looks = emptyLooks(pieces.length);
  pieces.forEach((corners, i) => {
    const map = homographyTo(corners, 1, 1);
    for (let k = 0; k < LOOK_PIXELS; k++)
      [places.x[k], places.y[k]] = mapped(
        map,
        shareOf(k % LOOK_SIDE),
        shareOf(Math.floor(k / LOOK_SIDE)),
      ) as [number, number];
    look(small, looks, i);
  });
  return looks;
}

/** Where a pixel of the picture of a cell lies, as a share of the cell's side. */
const shareOf = (pixel: number) => EDGE + ((1 - 2 * EDGE) * (pixel + 0.5)) / LOOK_SIDE;
/** How much the four corners of a cell count for each pixel, as in `placeInCell`, reckoned once: upper left, upper right, lower left, lower right. */
const WEIGHTS = Float64Array.from({ length: LOOK_PIXELS * 4 }, (_, i) => {
  const k = i >> 2;
  const [s, t] = [shareOf(k % LOOK_SIDE), shareOf(Math.floor(k / LOOK_SIDE))];
  return (i & 1 ? s : 1 - s) * (i & 2 ? t : 1 - t);
});
const rim: number[] = [];
for (let k = 0; k < LOOK_PIXELS; k++) {
  const [x, y] = [k % LOOK_SIDE, Math.floor(k / LOOK_SIDE)];
  if (x < RIM || y < RIM || x >= LOOK_SIDE - RIM || y >= LOOK_SIDE - RIM) rim.push(k);
}
/** Where the pixels of the cell lie that is looked at, and what is seen there. */
const places = emptyPlaces(LOOK_PIXELS);
const seen = emptyChannels(LOOK_PIXELS);
const edge = new Float32Array(rim.length);

/** What a cell looks like by what is seen at its pixels. */
function look(small: SmallPhoto, looks: CellLooks, at: number): void {
  valuesAt(small, places, seen);
  const [r, g, b, l] = seen;
  let clipped = 0;
  for (let k = 0; k < LOOK_PIXELS; k++) if (Math.min(r[k]!, g[k]!, b[k]!) > FULL) clipped++;
  looks.clipped[at] = clipped / LOOK_PIXELS;
  const middle = (plane: Float32Array) => {
    for (let k = 0; k < rim.length; k++) edge[k] = plane[rim[k]!]!;
    return medianOf(edge);
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
