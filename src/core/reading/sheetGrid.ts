import { Refusal } from '../refusal';
import { homographyTo, mapped } from '../view/projective';
import type { Corners } from './homography';
import { medianOf } from './median';
import { emptyChannels, emptyPlaces, type Photo, shrunk, valueAt, valuesAt } from './photo';

/** A printed table as a photo shows it, straightened: lightness 0…1, row by row. */
export interface StraightTable {
  width: number;
  height: number;
  grey: Float32Array;
  /** Its pixels for one of the photo. */
  scale: number;
}

/** Pixels along the longer side of a straightened table. */
const LONG_PX = 2400;

/** Narrower tables are not read, in pixels of the photo. */
const LEAST_WIDE = 150;
/** Lower rows are misread without a doubt, in pixels of the photo: half of the numbers at 20, none at 24. */
const LEAST_ROW = 22;
const TOO_SMALL = 'The table is too small on this photo to be read. Go nearer.';

/** The table between four corners of a photo, straightened and evenly lit. */
export function straightTable(photo: Photo, corners: Corners): StraightTable {
  const [a, b, c, d] = corners;
  const far = (from: readonly number[], to: readonly number[]) =>
    Math.hypot(from[0]! - to[0]!, from[1]! - to[1]!);
  const [wide, tall] = [(far(a, b) + far(d, c)) / 2, (far(a, d) + far(b, c)) / 2];
  const scale = Math.min(2, LONG_PX / Math.max(wide, tall));
  const [width, height] = [Math.round(wide * scale), Math.round(tall * scale)];
  // Headings and one row are the least: the last page of a list may have no more.
  if (wide < LEAST_WIDE || tall < 2 * LEAST_ROW) throw new Refusal(TOO_SMALL);
  const small = shrunk(photo, Math.max(1, Math.floor(1 / scale)));
  const map = homographyTo(corners, width, height);
  const grey = new Float32Array(width * height);
  const places = emptyPlaces(width);
  const seen = emptyChannels(width);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++)
      [places.x[x], places.y[x]] = mapped(map, x + 0.5, y + 0.5) as [number, number];
    valuesAt(small, places, seen);
    grey.set(seen[3], y * width);
  }
  return { width, height, grey: evenlyLit(grey, width, height), scale };
}

/** Pixels of a square over which the paper is taken to be lit alike. */
const PATCH = 60;

/** Divided by the paper's light: the bright end of each patch, taken straight between patches. */
function evenlyLit(grey: Float32Array, width: number, height: number): Float32Array {
  const [columns, rows] = [Math.ceil(width / PATCH), Math.ceil(height / PATCH)];
  const paper = new Float32Array(columns * rows);
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const seen: number[] = [];
      for (let y = j * PATCH; y < Math.min(height, (j + 1) * PATCH); y += 3)
        for (let x = i * PATCH; x < Math.min(width, (i + 1) * PATCH); x += 3) seen.push(grey[y * width + x]!);
      seen.sort((a, b) => a - b);
      paper[j * columns + i] = Math.max(0.08, seen[Math.floor(seen.length * 0.85)] ?? 1);
    }
  return grey.map((value, at) => {
    const [x, y] = [(at % width) / PATCH, Math.floor(at / width) / PATCH];
    return Math.min(1, value / valueAt(paper, columns, rows, x, y));
  });
}

/** Where the cells of a table lie: the lines between them, in pixels. */
export interface TableGrid {
  /** Lines from left to right, the outer ones among them. */
  columns: number[];
  /** Lines from top to bottom. */
  rows: number[];
}

/** Share of a line's length that must be dark. */
const RULED = 0.55;
/** As dark as this share of the paper is ink. */
const DARK = 0.8;
const MOST_COLUMNS = 16;
const MOST_ROWS = 270;

/** The rules of a printed table. @throws Refusal where there are none, or they lie too close to be read between */
export function tableGrid({ width, height, grey, scale }: StraightTable): TableGrid {
  // A rule that waves a little still counts: a place is dark if one of three pixels is.
  const down = new Float32Array(width);
  for (let x = 0; x < width; x++) {
    let dark = 0;
    for (let y = 0; y < height; y++)
      if (
        Math.min(
          grey[y * width + Math.max(0, x - 1)]!,
          grey[y * width + x]!,
          grey[y * width + Math.min(width - 1, x + 1)]!,
        ) < DARK
      )
        dark++;
    down[x] = dark / height;
  }
  const across = new Float32Array(height);
  for (let y = 0; y < height; y++) {
    let dark = 0;
    for (let x = 0; x < width; x++)
      if (
        Math.min(
          grey[Math.max(0, y - 1) * width + x]!,
          grey[y * width + x]!,
          grey[Math.min(height - 1, y + 1) * width + x]!,
        ) < DARK
      )
        dark++;
    across[y] = dark / width;
  }
  const columns = rulesIn(down, width * 0.02);
  const rows = rulesIn(across, Math.max(8, height / MOST_ROWS));
  if (rows.length < 3 || columns.length < 3)
    throw new Refusal(
      'No ruled table is seen between these corners. Mark the outer corners of the table itself, with its lines.',
    );
  if (columns.length - 1 > MOST_COLUMNS)
    throw new Refusal(
      'More columns than any colour list has are seen here. Are the corners those of the table?',
    );
  if (medianOf(Float32Array.from(rows.slice(1), (rule, i) => rule - rows[i]!)) / scale < LEAST_ROW)
    throw new Refusal(TOO_SMALL);
  return { columns, rows };
}

/** Middles of the dark stretches, with the two ends of the table; none nearer to another than `apart`. */
function rulesIn(share: Float32Array, apart: number): number[] {
  const found: number[] = [];
  for (let at = 0; at < share.length; at++) {
    if (share[at]! < RULED) continue;
    let end = at;
    while (end + 1 < share.length && share[end + 1]! >= RULED) end++;
    const middle = (at + end) / 2;
    if (found.length === 0 || middle - found.at(-1)! >= apart) found.push(middle);
    at = end;
  }
  if (found.length === 0 || found[0]! > apart) found.unshift(0);
  if (share.length - 1 - found.at(-1)! > apart) found.push(share.length - 1);
  return found;
}
