import { seededRandom } from '../../../../../src/core/chance/random';
import type { Picture } from '../../../../../src/core/chart/files/picture/edges';
import { hexToRgb, type Rgb } from '../../../../../src/core/colour/rgb';

/** A printed chart as a scanner or a camera might see it. */
export interface ScanLook {
  /** Columns and rows. */
  width: number;
  height: number;
  /** Pixels a cell. */
  pitch: number;
  marginPx: number;
  /** Degrees by which the paper lies turned. */
  turned?: number;
  /** Share by which the lower edge is further away than the upper. */
  keystone?: number;
  /** Lines between cells, as a share of a cell; every tenth is three times as wide. */
  lines?: number;
  symbols?: boolean;
  /** Standard deviation of the noise of each pixel. */
  noise?: number;
  /** A title and numbers stand in the margin. */
  words?: boolean;
}

const PAPER: Rgb = [252, 251, 247];
const INK: Rgb = [40, 38, 36];
/** Each pixel is the mean of so many points a side. */
const POINTS = 2;

/**
 * Draws the chart by looking, for each point of the picture, where on the paper it lies: turned about the middle, then
 * tilted away, as a pinhole camera sees it. Written apart from the program's own maps.
 * @param cells legend line of each cell, from 1
 */
export function scanned(cells: ArrayLike<number>, hexes: readonly string[], look: ScanLook): Picture {
  const { width, height, pitch, marginPx, turned = 0, keystone = 0, noise = 0 } = look;
  const [wide, high] = [width * pitch, height * pitch].map((px) => Math.round(px + 2 * marginPx)) as [
    number,
    number,
  ];
  const colours = [...hexes.map(hexToRgb), PAPER, INK].flat();
  const [paper, ink] = [hexes.length, hexes.length + 1];
  const random = seededRandom(5);
  const rgba = new Uint8Array(wide * high * 4);
  const [sin, cos] = [Math.sin((turned * Math.PI) / 180), Math.cos((turned * Math.PI) / 180)];
  const sum = new Float64Array(3);
  for (let y = 0; y < high; y++) {
    for (let x = 0; x < wide; x++) {
      sum.fill(0);
      for (let point = 0; point < POINTS * POINTS; point++) {
        const dx = x + ((point % POINTS) + 0.5) / POINTS - wide / 2;
        const dy = y + (Math.floor(point / POINTS) + 0.5) / POINTS - high / 2;
        const px = dx * cos + dy * sin;
        const py = -dx * sin + dy * cos;
        // What lies further down is further away: all of it is smaller by the distance.
        const down = py / (1 - (keystone * py) / (height * pitch));
        const away = 1 + (keystone * down) / (height * pitch);
        const shown = onPaper((px * away) / pitch + width / 2, down / pitch + height / 2, cells, look);
        const colour = shown === 'ink' ? ink : shown === 'paper' || shown < 1 ? paper : shown - 1;
        for (let part = 0; part < 3; part++) sum[part]! += colours[colour * 3 + part]!;
      }
      const at = (y * wide + x) * 4;
      for (let part = 0; part < 3; part++) {
        const value = sum[part]! / POINTS ** 2 + (noise > 0 ? noise * random.normal() : 0);
        rgba[at + part] = Math.max(0, Math.min(255, Math.round(value)));
      }
      rgba[at + 3] = 255;
    }
  }
  return { width: wide, height: high, rgba };
}

/** What is printed at a place counted in cells: the line of a colour, or what else. */
function onPaper(
  u: number,
  v: number,
  cells: ArrayLike<number>,
  { width, height, lines = 0, symbols, words }: ScanLook,
): number | 'paper' | 'ink' {
  if (u < 0 || v < 0 || u >= width || v >= height) {
    const inTitle = words && v < -0.8 && v > -1.8 && u > 2 && u < width * 0.7 && Math.floor(u * 3) % 2 === 0;
    return inTitle ? 'ink' : 'paper';
  }
  const column = Math.floor(u);
  const row = Math.floor(v);
  const inX = u - column;
  const inY = v - row;
  const onLine =
    lines > 0 &&
    (inX < halfLine(column, lines) ||
      inY < halfLine(row, lines) ||
      1 - inX < halfLine(column + 1, lines) ||
      1 - inY < halfLine(row + 1, lines));
  if (onLine) return 'ink';
  const cell = cells[row * width + column]!;
  const stroke =
    symbols &&
    ((cell % 2 === 0 && Math.abs(inX - inY) < 0.07 && inX > 0.25 && inX < 0.75) ||
      (cell % 2 === 1 && Math.abs(inX - 0.5) < 0.06 && inY > 0.25 && inY < 0.75));
  return stroke ? 'ink' : cell;
}

/** Half of the width of the line before a column or row, in cells. */
function halfLine(n: number, lines: number): number {
  return n % 10 === 0 ? 1.5 * lines : 0.5 * lines;
}

/** Cells in patches of a few colours with single ones strewn in, as pictures have them. */
export function patchy(width: number, height: number, colours: number, seed = 3): Uint16Array {
  const random = seededRandom(seed);
  const spots = Array.from({ length: 40 }, () => ({
    x: random.uniform() * width,
    y: random.uniform() * height,
    line: 1 + Math.floor(random.uniform() * colours),
  }));
  return Uint16Array.from({ length: width * height }, (_, i) => {
    if (random.uniform() < 0.2) return 1 + Math.floor(random.uniform() * colours);
    const [x, y] = [i % width, Math.floor(i / width)];
    const near = spots.reduce((a, b) =>
      Math.hypot(a.x - x, a.y - y) <= Math.hypot(b.x - x, b.y - y) ? a : b,
    );
    return near.line;
  });
}
