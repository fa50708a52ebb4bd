import { homographyTo } from '../view/projective';
import { CELL_PX, lineEnergy, MARGIN, turned } from './gridLines';
import type { Corners } from './homography';
import { plainMesh, straightened, widened } from './mesh';
import { type Photo, type SmallPhoto, shrunk } from './photo';

/** How many squares lie between the corners of a photograph. */
export interface CellCount {
  columns: number;
  rows: number;
  /** Share of the rows and columns of squares in which as many were counted, 0…1. */
  sure: number;
}

/** From this share on a count that differs from what somebody said is told, and from the other on it is believed. */
const TOLD_FROM = 0.56;
const BELIEVED_FROM = 0.7;

/**
 * That other columns and rows were counted than somebody said, as a sentence; null where the two agree, or the count is
 * not sure enough.
 * @param sure how sure the count must be: to be `told`, or to be `believed` against what was said
 */
export function otherCount(
  count: CellCount | null,
  said: { columns: number; rows: number },
  sure: 'told' | 'believed',
): string | null {
  if (!count || count.sure < (sure === 'told' ? TOLD_FROM : BELIEVED_FROM)) return null;
  if (count.columns === said.columns && count.rows === said.rows) return null;
  return `Between these corners ${count.columns} columns and ${count.rows} rows are counted, not ${said.columns} and ${said.rows}. With one too many or too few, squares are read as their neighbours.`;
}

/** Pixels along the longer side of the picture in which squares are counted first. */
const ROUGH_PX = 1600;
const LEAST_CELLS = 4;
const MOST_CELLS = 140;

/**
 * Counts columns and rows between four corners: first about, by the distance at which lines come again; then line by line
 * in every row of squares, and what most rows say counts.
 * @returns null where no lines come again
 */
export function countedCells(photo: Photo, corners: Corners): CellCount | null {
  const [a, b, c, d] = corners;
  const far = (from: readonly number[], to: readonly number[]) =>
    Math.hypot(from[0]! - to[0]!, from[1]! - to[1]!);
  const [wide, tall] = [(far(a, b) + far(d, c)) / 2, (far(a, d) + far(b, c)) / 2];
  const small = shrunk(photo, Math.max(1, Math.floor(Math.max(wide, tall) / ROUGH_PX)));
  const across = periods(small, corners, wide / small.factor, tall / small.factor);
  if (across === null) return null;
  const [columns, rows] = across;
  return counted(small, corners, columns, rows);
}

/** About how many cells lie across and down. */
function periods(
  small: SmallPhoto,
  corners: Corners,
  wide: number,
  tall: number,
): [columns: number, rows: number] | null {
  // A picture without perspective, a cell of it as large as in the photo.
  const [columns, rows] = [Math.max(1, Math.round(wide / CELL_PX)), Math.max(1, Math.round(tall / CELL_PX))];
  const flat = straightened(small, plainMesh(homographyTo(corners, columns, rows), columns, rows));
  const period = (picture: typeof flat) => {
    const energy = lineEnergy(picture);
    const strips = energy.length / picture.width;
    const most = Math.floor(picture.width / LEAST_CELLS);
    const likeness = new Float32Array(most);
    for (let strip = 0; strip < strips; strip++) {
      const values = energy.subarray(strip * picture.width, (strip + 1) * picture.width);
      const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
      for (let lag = 0; lag < most; lag++) {
        let sum = 0;
        for (let x = 5; x + lag < values.length - 5; x++)
          sum += (values[x]! - mean) * (values[x + lag]! - mean);
        likeness[lag]! += sum / (values.length - lag);
      }
    }
    const least = Math.max(6, Math.floor(picture.width / MOST_CELLS));
    let top = 0;
    for (let lag = least; lag < most; lag++) top = Math.max(top, likeness[lag]!);
    if (top < 0.05 * likeness[0]!) return null;
    // The first peak that is nearly as high as the highest: later ones are its multiples.
    for (let lag = least; lag < most - 1; lag++)
      if (
        likeness[lag]! > 0.75 * top &&
        likeness[lag]! >= likeness[lag - 1]! &&
        likeness[lag]! >= likeness[lag + 1]!
      )
        return lag;
    return null;
  };
  const [x, y] = [period(flat), period(turned(flat))];
  if (x === null || y === null) return null;
  return [Math.round(flat.width / x), Math.round(flat.height / y)];
}

/** Counts the lines in every row and every column of a picture in which cells are about of {@link CELL_PX} pixels. */
function counted(small: SmallPhoto, corners: Corners, columns: number, rows: number): CellCount {
  const mesh = plainMesh(homographyTo(corners, columns, rows), columns, rows);
  const flat = straightened(small, widened(mesh, MARGIN));
  const [across, down] = [
    linesIn(lineEnergy(flat), flat.width, columns, rows),
    linesIn(lineEnergy(turned(flat)), flat.height, rows, columns),
  ];
  return { columns: across.cells, rows: down.cells, sure: Math.min(across.share, down.share) };
}

/** How far from the usual one the distance of two lines may be, as a share of a cell, and what a share costs. */
const APART = 0.35;
const APART_COST = 3;

/**
 * How many cells lie between the first and the last line of most strips: of all ways from the one to the other in steps of
 * about a cell, the one with the strongest lines.
 */
function linesIn(
  energy: Float32Array,
  width: number,
  cells: number,
  strips: number,
): { cells: number; share: number } {
  const votes = new Map<number, number>();
  const [from, to] = [MARGIN * CELL_PX, (MARGIN + cells) * CELL_PX];
  const [near, far] = [Math.round(CELL_PX * (1 - APART)), Math.round(CELL_PX * (1 + APART))];
  for (let strip = 0; strip < strips; strip++) {
    const values = energy.subarray((strip + MARGIN) * width, (strip + MARGIN + 1) * width);
    const peak = values.reduce((most, value) => Math.max(most, value), 1e-6);
    const gain = new Float64Array(to - from + 1).fill(Number.NEGATIVE_INFINITY);
    const steps = new Int32Array(gain.length);
    gain[0] = 0;
    for (let x = near; x < gain.length; x++) {
      const own = (values[from + x]! + values[from + x - 1]!) / (2 * peak) - LINE_WORTH;
      for (let step = near; step <= Math.min(far, x); step++) {
        const before = gain[x - step]!;
        if (before === Number.NEGATIVE_INFINITY) continue;
        const total = before + own - APART_COST * (step / CELL_PX - 1) ** 2;
        if (total > gain[x]!) {
          gain[x] = total;
          steps[x] = steps[x - step]! + 1;
        }
      }
    }
    // The last line lies within a third of a cell of its corner's.
    let best = gain.length - 1;
    for (let x = gain.length - 1 - Math.round(CELL_PX / 3); x < gain.length; x++)
      if (gain[x]! > gain[best]!) best = x;
    if (gain[best]! > Number.NEGATIVE_INFINITY) votes.set(steps[best]!, (votes.get(steps[best]!) ?? 0) + 1);
  }
  const [most] = [...votes].sort(([, one], [, other]) => other - one);
  return { cells: most?.[0] ?? cells, share: (most?.[1] ?? 0) / Math.max(1, strips) };
}

/** What a place must have of the strongest line to be taken for one. */
const LINE_WORTH = 0.35;
