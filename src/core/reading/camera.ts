import type { CellRect, Chart } from '../cells/chart';
import { type SeededRandom, seededRandom } from '../chance/random';
import type { Rgb } from '../colour/rgb';
import { homographyTo, inverseOf, mapped } from '../view/projective';
import { coarsely } from './coarsely';
import { gaussianWeights } from './gaussian';
import type { Corners } from './homography';
import { type Photo, type Spot, toLinear, toSrgb, valueAt } from './photo';

/** How a photograph is spoilt; lengths in cells or pixels of the photograph as said. */
export interface CameraLevel {
  /** Degrees between the canvas and the picture. */
  tilt: number;
  /** How far the canvas waves off a plane, in cells (root of the mean square). */
  waves: number;
  /** Share of the light that is missing on the dark side, and in a shadow that falls across. */
  gradient: number;
  shadow: number;
  /** Light of the brightest reflection, 1 is white paper. */
  glare: number;
  /** Standard deviation of the blur and length of a movement, pixels. */
  blur: number;
  motion: number;
  /** Standard deviation of the noise, in 255ths. */
  noise: number;
  /** Quality of the JPEG that is made of it, 1…100. */
  jpeg: number;
}

/** A calm hand by daylight, a usual evening, and a bad one (common practice, no source). */
export const CAMERA_LEVELS = {
  easy: {
    tilt: 4,
    waves: 0.1,
    gradient: 0.15,
    shadow: 0,
    glare: 0.2,
    blur: 0.9,
    motion: 0,
    noise: 1.2,
    jpeg: 90,
  },
  normal: {
    ...{ tilt: 8, waves: 0.25, gradient: 0.35, shadow: 0.15, glare: 0.55 },
    ...{ blur: 1.4, motion: 0, noise: 2.2, jpeg: 86 },
  },
  hard: {
    ...{ tilt: 12, waves: 0.5, gradient: 0.6, shadow: 0.35, glare: 1.1 },
    ...{ blur: 1.9, motion: 2.5, noise: 3.6, jpeg: 81 },
  },
} as const satisfies Record<string, CameraLevel>;
export type CameraLevelName = keyof typeof CAMERA_LEVELS;

/** A printed cell: its tint, and where ink lies on it. */
export interface PrintedCell {
  tint: Rgb;
  ink: Rgb;
  /** Share of ink, 0…1, `side` × `side` row by row. */
  mask: Float32Array;
  side: number;
}

/** What stands before the camera. */
export interface Scene {
  chart: Chart;
  /** By line; a cell without one is bare paper. */
  prints: ReadonlyMap<number, PrintedCell>;
  /** Width of the printed lines between cells, as a share of a cell. */
  lineWidth: number;
}

export interface Shot {
  /** Cells whose corners the photograph is told by; what lies around is in it too. */
  rect: CellRect;
  /** Pixels of a cell, about. */
  cellPx: number;
  level: CameraLevel;
  seed: number;
}

/** A photograph of the simulated camera, and where the corners of its rectangle came to lie in it. */
export interface TakenPhoto {
  photo: Photo;
  corners: Corners;
  /** Where any place of the rectangle came to lie. @param column and row in cells, from its upper left corner */
  where(column: number, row: number): Spot;
}

const PAPER: Rgb = [247, 246, 242];
const LINE_INK: Rgb = [128, 124, 120];
/** Cells to see around the rectangle. */
const AROUND = 1.6;
/** How far the lens stands, in lengths of the picture. */
const DISTANCE = 2.4;

/** sRGB of linear light in steps of a 4096th: far finer than a camera's noise. */
const S_RGB = Float32Array.from({ length: 4097 }, (_, step) => toSrgb(step / 4096));
const sRgbOf = (light: number) => S_RGB[Math.round(Math.min(1, Math.max(0, light)) * 4096)]!;

/** Takes a photograph of a part of a scene. The same seed gives the same photograph. */
export function takePhoto(scene: Scene, { rect, cellPx, level, seed }: Shot): TakenPhoto {
  const random = seededRandom(seed);
  const world = { width: rect.width + 2 * AROUND, height: rect.height + 2 * AROUND };
  const size = {
    width: Math.round(world.width * cellPx * 1.06),
    height: Math.round(world.height * cellPx * 1.06),
  };
  const map = homographyTo(tilted(size, level.tilt, random), world.width, world.height);
  const wave = waves(level.waves, random);
  const light = lighting(level, size, random);
  const back = inverseOf(map);
  const linear = new Float32Array(size.width * size.height * 3);
  const look = looker(scene);
  // The wave moves a place of the canvas; where a pixel looks is found by going back twice.
  const looksAt = coarsely(size.width, size.height, 2, (x, y, out) => {
    const [u, v] = mapped(back, x + 0.5, y + 0.5);
    let [wu, wv] = wave(u, v);
    [wu, wv] = wave(u - wu, v - wv);
    out[0] = rect.x - AROUND + u - wu;
    out[1] = rect.y - AROUND + v - wv;
  });
  const spots = new Float32Array(size.width * 2);
  for (let y = 0; y < size.height; y++) {
    looksAt(y, spots);
    for (let x = 0; x < size.width; x++)
      look(spots[x * 2]!, spots[x * 2 + 1]!, linear, (y * size.width + x) * 3);
  }
  blur(linear, size.width, size.height, level.blur);
  if (level.motion > 0) smear(linear, size.width, size.height, level.motion, random);
  const photo: Photo = { ...size, data: new Uint8ClampedArray(size.width * size.height * 4) };
  const noise = Float32Array.from({ length: 1 << 16 }, () => random.normal());
  const litAt = coarsely(size.width, size.height, 4, light);
  const lit = new Float32Array(size.width * 4);
  for (let y = 0, at = 0; y < size.height; y++) {
    litAt(y, lit);
    for (let x = 0; x < size.width; x++, at++) {
      for (let channel = 0; channel < 3; channel++) {
        const value = linear[at * 3 + channel]! * lit[x * 4 + channel]! + lit[x * 4 + 3]!;
        photo.data[at * 4 + channel] =
          sRgbOf(value) + level.noise * noise[(random.uniform() * noise.length) | 0]!;
      }
      photo.data[at * 4 + 3] = 255;
    }
  }
  const where = (column: number, row: number) => {
    const [u, v] = [column + AROUND, row + AROUND];
    const [wu, wv] = wave(u, v);
    return mapped(map, u + wu, v + wv);
  };
  const corners: Corners = [
    where(0, 0),
    where(rect.width, 0),
    where(rect.width, rect.height),
    where(0, rect.height),
  ];
  return { photo, corners, where };
}

/** Corners of what is seen of the canvas in the picture, the canvas lying at a slant. */
function tilted(size: { width: number; height: number }, tilt: number, random: SeededRandom): Corners {
  const [slant, towards, turn] = [
    (tilt * Math.PI) / 180,
    random.uniform() * 2 * Math.PI,
    ((random.uniform() - 0.5) * tilt * Math.PI) / 360,
  ];
  const half = Math.max(size.width, size.height) / 2;
  const corner = (x: number, y: number): [number, number] => {
    const [cx, cy] = [(x - 0.5) * size.width * 0.94, (y - 0.5) * size.height * 0.94];
    const along = cx * Math.cos(towards) + cy * Math.sin(towards);
    // Turned about an axis in the plane: what lies along the direction is shortened, and comes nearer or goes farther.
    const short = along * (Math.cos(slant) - 1);
    const scale = 1 / (1 + (along * Math.sin(slant)) / (2 * half * DISTANCE));
    const [px, py] = [(cx + short * Math.cos(towards)) * scale, (cy + short * Math.sin(towards)) * scale];
    return [
      size.width / 2 + px * Math.cos(turn) - py * Math.sin(turn),
      size.height / 2 + px * Math.sin(turn) + py * Math.cos(turn),
    ];
  };
  return [corner(0, 0), corner(1, 0), corner(1, 1), corner(0, 1)];
}

/** How far a place of the canvas lies off, in cells: a few long waves across each other. */
function waves(rms: number, random: SeededRandom): (u: number, v: number) => [number, number] {
  // A canvas that was rolled and folded waves every 5 to 15 cm (common practice, no source).
  const some = () =>
    Array.from({ length: 4 }, () => {
      const [length, way] = [22 + 38 * random.uniform(), random.uniform() * Math.PI];
      return {
        x: (2 * Math.PI * Math.cos(way)) / length,
        y: (2 * Math.PI * Math.sin(way)) / length,
        phase: random.uniform() * 2 * Math.PI,
        // Four waves, across and down: together they are as high as asked.
        height: rms * 0.5 * (0.6 + 0.8 * random.uniform()),
      };
    });
  const [across, down] = [some(), some()];
  const sum = (parts: ReturnType<typeof some>, u: number, v: number) =>
    parts.reduce((all, { x, y, phase, height }) => all + height * Math.sin(x * u + y * v + phase), 0);
  return (u, v) => [sum(across, u, v), sum(down, u, v)];
}

/** Light at each pixel: writes a gain a channel, and what a reflection adds to all. */
function lighting(
  level: CameraLevel,
  { width, height }: { width: number; height: number },
  random: SeededRandom,
): (x: number, y: number, out: Float64Array) => void {
  const from = random.uniform() * 2 * Math.PI;
  const white = [0, 1, 2].map(() => 1 + 0.07 * random.normal());
  const exposure = 0.86 + 0.1 * random.uniform();
  const shadow = { way: random.uniform() * 2 * Math.PI, at: (random.uniform() - 0.5) * 0.7, soft: 0.05 };
  const spots = Array.from({ length: level.glare > 0 ? 2 : 0 }, (_, i) => ({
    x: width * random.uniform(),
    y: height * random.uniform(),
    size: Math.max(width, height) * (0.05 + 0.05 * random.uniform()),
    peak: level.glare * (i === 0 ? 1 : 0.4),
  }));
  return (x, y, out) => {
    const [dx, dy] = [x / width - 0.5, y / height - 0.5];
    const along = (dx * Math.cos(from) + dy * Math.sin(from)) / Math.SQRT2 + 0.5;
    const across = dx * Math.cos(shadow.way) + dy * Math.sin(shadow.way) - shadow.at;
    const shade = 1 - level.shadow / (1 + Math.exp(-across / shadow.soft));
    const all = exposure * (1 - level.gradient * along) * shade;
    for (let channel = 0; channel < 3; channel++) out[channel] = all * white[channel]!;
    let glare = 0;
    for (const spot of spots)
      glare += spot.peak * Math.exp(-((x - spot.x) ** 2 + (y - spot.y) ** 2) / (2 * spot.size ** 2));
    out[3] = glare;
  };
}

/** Gives the linear light of a place of the canvas, in cells. */
function looker({
  chart,
  prints,
  lineWidth,
}: Scene): (u: number, v: number, out: Float32Array, at: number) => void {
  const linear = (rgb: Rgb) => rgb.map((part) => toLinear(part)) as [number, number, number];
  const [paper, rule] = [linear(PAPER), linear(LINE_INK)];
  const known: ({ tint: number[]; ink: number[]; mask: Float32Array; side: number } | undefined)[] = [];
  for (const [line, print] of prints)
    known[line] = { ...print, tint: linear(print.tint), ink: linear(print.ink) };
  const half = lineWidth / 2;
  const lineAt = (column: number, row: number) =>
    column < 0 || row < 0 || column >= chart.width || row >= chart.height
      ? 0
      : chart.cells[row * chart.width + column]!;
  return (u, v, out, at) => {
    const column = Math.floor(u);
    const row = Math.floor(v);
    const s = u - column;
    const t = v - row;
    const print = known[lineAt(column, row)];
    const near =
      (s < half && (print || known[lineAt(column - 1, row)])) ||
      (s > 1 - half && (print || known[lineAt(column + 1, row)])) ||
      (t < half && (print || known[lineAt(column, row - 1)])) ||
      (t > 1 - half && (print || known[lineAt(column, row + 1)]));
    if (near || !print) {
      const from = near ? rule : paper;
      for (let channel = 0; channel < 3; channel++) out[at + channel] = from[channel]!;
      return;
    }
    const { side, mask, tint, ink } = print;
    const share = valueAt(mask, side, side, s * side, t * side);
    for (let channel = 0; channel < 3; channel++)
      out[at + channel] = tint[channel]! * (1 - share) + ink[channel]! * share;
  };
}

/** A Gaussian blur of three channels in place, row by row and column by column; the edges are repeated. */
function blur(pixels: Float32Array, width: number, height: number, sigma: number): void {
  const weights = gaussianWeights(sigma);
  const reach = weights.length >> 1;
  const sum = weights.reduce((all, weight) => all + weight, 0);
  // The middle one, and those at 1, 2, … from it.
  const half = Float64Array.from(weights.subarray(reach), (weight) => weight / sum);
  const row = width * 3;
  const across = new Float32Array(pixels.length);
  const blurred = new Float64Array(row);
  const line = new Float64Array(row + reach * 6);
  for (let y = 0; y < height; y++) {
    const [first, end] = [y * row, (y + 1) * row];
    line.set(pixels.subarray(first, end), reach * 3);
    for (let i = 0; i < reach * 3; i++) {
      line[i] = pixels[first + (i % 3)]!;
      line[line.length - 1 - i] = pixels[end - 1 - (i % 3)]!;
    }
    for (let i = 0; i < row; i++) blurred[i] = half[0]! * line[i + reach * 3]!;
    for (let k = 1; k <= reach; k++) {
      const [weight, before, after] = [half[k]!, (reach - k) * 3, (reach + k) * 3];
      for (let i = 0; i < row; i++) blurred[i]! += weight * (line[i + before]! + line[i + after]!);
    }
    across.set(blurred, first);
  }
  for (let y = 0; y < height; y++) {
    for (let i = 0; i < row; i++) blurred[i] = half[0]! * across[y * row + i]!;
    for (let k = 1; k <= reach; k++) {
      const weight = half[k]!;
      const [above, below] = [Math.max(0, y - k) * row, Math.min(height - 1, y + k) * row];
      for (let i = 0; i < row; i++) blurred[i]! += weight * (across[above + i]! + across[below + i]!);
    }
    pixels.set(blurred, y * row);
  }
}

/** A straight movement while the shutter was open, in place. @param length in pixels */
function smear(
  pixels: Float32Array,
  width: number,
  height: number,
  length: number,
  random: SeededRandom,
): void {
  const way = random.uniform() * Math.PI;
  const steps = Math.max(2, Math.ceil(length * 2));
  const places = Array.from({ length: steps }, (_, k) => {
    const far = ((k + 0.5) / steps - 0.5) * length;
    return { x: Math.round(far * Math.cos(way)), y: Math.round(far * Math.sin(way)) };
  });
  const before = pixels.slice();
  for (let y = 0; y < height; y++) {
    const rows = places.map((place) => Math.min(height - 1, Math.max(0, y + place.y)) * width);
    for (let x = 0; x < width; x++) {
      let [red, green, blue] = [0, 0, 0];
      for (let k = 0; k < steps; k++) {
        const from = (rows[k]! + Math.min(width - 1, Math.max(0, x + places[k]!.x))) * 3;
        red += before[from]!;
        green += before[from + 1]!;
        blue += before[from + 2]!;
      }
      const at = (y * width + x) * 3;
      pixels[at] = red / steps;
      pixels[at + 1] = green / steps;
      pixels[at + 2] = blue / steps;
    }
  }
}
