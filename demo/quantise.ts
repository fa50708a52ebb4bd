import { converter, type Oklab } from 'culori';
import sharp from 'sharp';
import type { Rgb } from '../src/core/colour/rgb';
import type { Random } from './random';

const toOklab = converter('oklab');
const toRgb = converter('rgb');
type Point = [l: number, a: number, b: number];

/** A picture in few colours: `cells` are indices into `palette`, which starts with the most frequent colour. */
export interface FewColours {
  palette: Rgb[];
  cells: Uint16Array;
}

/** Draws a scene at its size in cells and reduces it to exactly so many colours. */
export async function drawInColours(
  svg: string,
  width: number,
  height: number,
  colours: number,
  random: Random,
): Promise<FewColours> {
  const { data } = await sharp(Buffer.from(svg), { density: 72 })
    .resize(width, height, { kernel: 'lanczos3', fit: 'fill' })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const points: Point[] = [];
  for (let i = 0; i < width * height; i++) {
    const { l, a, b } = toOklab({
      mode: 'rgb',
      r: data[i * 3]! / 255,
      g: data[i * 3 + 1]! / 255,
      b: data[i * 3 + 2]! / 255,
    });
    // Hue and chroma weigh more than lightness, so that small bright things keep a colour of their own.
    points.push([l, a * 1.6, b * 1.6]);
  }
  const centres = cluster(points, colours, random);
  const cells = Uint16Array.from(points, (point) => nearest(point, centres));
  calmLoneCells(cells, width, height, centres);
  return byFrequency(cells, centres);
}

function cluster(points: readonly Point[], count: number, random: Random): Point[] {
  const sample = Array.from(
    { length: Math.min(points.length, 12_000) },
    () => points[Math.floor(random() * points.length)]!,
  );
  // Far-apart starting points (k-means++), then a fixed number of rounds.
  const centres: Point[] = [sample[0]!];
  while (centres.length < count) {
    const distances = sample.map((point) => Math.min(...centres.map((centre) => distance(point, centre))));
    let left = random() * distances.reduce((sum, d) => sum + d, 0);
    const at = distances.findIndex((d) => {
      left -= d;
      return left <= 0;
    });
    centres.push([...sample[Math.max(0, at)]!]);
  }
  for (let round = 0; round < 16; round++) {
    const sums = centres.map(() => [0, 0, 0, 0]);
    for (const point of sample) {
      const sum = sums[nearest(point, centres)]!;
      for (let i = 0; i < 3; i++) sum[i]! += point[i]!;
      sum[3]!++;
    }
    sums.forEach((sum, c) => {
      if (sum[3]! > 0) centres[c] = [sum[0]! / sum[3]!, sum[1]! / sum[3]!, sum[2]! / sum[3]!];
    });
  }
  return centres;
}

/** A lone cell hardly different from its surroundings joins them; sparks that stand out stay. */
function calmLoneCells(cells: Uint16Array, width: number, height: number, centres: readonly Point[]): void {
  const before = cells.slice();
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const near = [i - 1, i + 1, i - width, i + width].map((n) => before[n]!);
      if (near.includes(before[i]!)) continue;
      const common = near.find((line, at) => near.indexOf(line) !== at) ?? near[0]!;
      if (distance(centres[before[i]!]!, centres[common]!) < 0.012) cells[i] = common;
    }
  }
}

function byFrequency(cells: Uint16Array, centres: readonly Point[]): FewColours {
  const counts = new Map<number, number>();
  for (const cell of cells) counts.set(cell, (counts.get(cell) ?? 0) + 1);
  const order = [...counts.keys()].sort((a, b) => counts.get(b)! - counts.get(a)!);
  const rank = new Map(order.map((centre, i) => [centre, i]));
  return {
    palette: order.map((centre) => rgbOf(centres[centre]!)),
    cells: cells.map((cell) => rank.get(cell)!),
  };
}

function rgbOf([l, a, b]: Point): Rgb {
  const rgb = toRgb({ mode: 'oklab', l, a: a / 1.6, b: b / 1.6 } satisfies Oklab);
  const part = (value: number) => Math.round(Math.min(1, Math.max(0, value)) * 255);
  return [part(rgb.r), part(rgb.g), part(rgb.b)];
}

function nearest(point: Point, centres: readonly Point[]): number {
  let best = 0;
  let least = Infinity;
  for (let c = 0; c < centres.length; c++) {
    const d = distance(point, centres[c]!);
    if (d < least) {
      least = d;
      best = c;
    }
  }
  return best;
}

function distance(p: Point, q: Point): number {
  return (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2;
}
