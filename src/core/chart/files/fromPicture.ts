import type { LegendLine } from '../../canvas/legend';
import { type CellGrid, findCells, type Picture, type Size } from './findCells';
import {
  type ChartReading,
  COMPRESSED_COLOUR,
  chartFromPixels,
  NEAREST_COLOUR,
  SAME_COLOUR,
} from './fromPixels';

/**
 * Reads a chart from a picture.
 * @param how `compressed` when colours are not exactly as they were drawn (JPEG), `nearest` to leave no colour out
 * @throws RangeError as {@link findCells}
 */
export function chartFromPicture(
  picture: Picture,
  size: Size,
  legend: readonly LegendLine[],
  how: { compressed: boolean; nearest: boolean },
): ChartReading {
  const grid = findCells(picture, size);
  const rule = how.nearest ? NEAREST_COLOUR : how.compressed ? COMPRESSED_COLOUR : SAME_COLOUR;
  const colours = cellColours(picture, size, grid);
  const reading = chartFromPixels(size.width, size.height, colours, legend, rule);
  const notices: string[] = [];
  if (grid.cellWidth !== 1) {
    const [wide, high] = [grid.cellWidth, grid.cellHeight].map((px) => Number(px.toFixed(1)));
    notices.push(
      `A cell is ${wide} × ${high} pixels large on this picture; the inner part of each was read.`,
    );
  }
  if (grid.finer) {
    notices.push(
      `Its cells look smaller than that: the picture seems to show ${grid.finer}. Check before you save.`,
    );
  }
  if (how.compressed) {
    notices.push(
      'This file is compressed, which blurs colours where cells meet. Look at the colours taken as the same before you save; a PNG is exact.',
    );
  }
  return { ...reading, notices: [...notices, ...twins(legend)] };
}

/** Lines that a picture cannot tell apart. */
function twins(legend: readonly LegendLine[]): string[] {
  return legend.flatMap((line, i) => {
    const first = legend.findIndex(({ hex }) => hex !== null && hex === line.hex);
    return first >= 0 && first < i
      ? [
          `${legend[first]!.code} and ${line.code} have the same colour on the sheet, which no picture tells apart: all these cells go to ${legend[first]!.code}.`,
        ]
      : [];
  });
}

/** The inner part of a cell that is looked at; its rim may hold grid lines or blur from the next cell. */
const INNER_SHARE = 0.6;
const MOST_SAMPLES_A_SIDE = 7;
/** Samples that differ by no more than this (sum over the parts) are one ink. */
const ONE_INK = 36;

/**
 * One colour a cell: the ink that covers most of its inner part, so that a printed symbol or grid line does not count.
 * @returns 4 × width × height bytes, sRGB
 */
function cellColours(picture: Picture, size: Size, grid: CellGrid): Uint8Array {
  const out = new Uint8Array(size.width * size.height * 4);
  if (grid.cellWidth === 1 && grid.cellHeight === 1 && grid.left === 0 && grid.top === 0) {
    out.set(picture.rgba.subarray(0, out.length));
    return out;
  }
  const offsets = (cell: number) => {
    const count = Math.max(1, Math.min(MOST_SAMPLES_A_SIDE, Math.floor(cell * INNER_SHARE)));
    return Array.from(
      { length: count },
      (_, i) => cell * ((1 - INNER_SHARE) / 2 + (INNER_SHARE * (i + 0.5)) / count),
    );
  };
  const across = offsets(grid.cellWidth);
  const down = offsets(grid.cellHeight);
  const samples = new Uint8Array(across.length * down.length * 4);
  for (let y = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++) {
      let at = 0;
      for (const dy of down) {
        const row = Math.min(picture.height - 1, Math.floor(grid.top + y * grid.cellHeight + dy));
        for (const dx of across) {
          const column = Math.min(picture.width - 1, Math.floor(grid.left + x * grid.cellWidth + dx));
          const from = (row * picture.width + column) * 4;
          for (let part = 0; part < 4; part++) samples[at++] = picture.rgba[from + part]!;
        }
      }
      commonInk(samples, out, (y * size.width + x) * 4);
    }
  }
  return out;
}

/** Writes the colour that most samples share: exactly, where a third of them are the same, else their mean. */
function commonInk(samples: Uint8Array, out: Uint8Array, to: number): void {
  const count = samples.length / 4;
  let middle = 0;
  let nearest = -1;
  let same = 0;
  let sameMost = 0;
  let sameAt = 0;
  for (let i = 0; i < count; i++) {
    let near = 0;
    same = 0;
    for (let j = 0; j < count; j++) {
      const apart = difference(samples, i, j);
      if (apart <= ONE_INK) near++;
      if (apart === 0) same++;
    }
    if (near > nearest) {
      nearest = near;
      middle = i;
    }
    if (same > sameMost) {
      sameMost = same;
      sameAt = i;
    }
    if (same === count) break;
  }
  if (sameMost * 3 >= count) {
    for (let part = 0; part < 4; part++) out[to + part] = samples[sameAt * 4 + part]!;
    return;
  }
  for (let part = 0; part < 4; part++) {
    let sum = 0;
    for (let j = 0; j < count; j++) {
      if (difference(samples, middle, j) <= ONE_INK) sum += samples[j * 4 + part]!;
    }
    out[to + part] = Math.round(sum / nearest);
  }
}

function difference(samples: Uint8Array, i: number, j: number): number {
  let apart = 0;
  for (let part = 0; part < 4; part++) apart += Math.abs(samples[i * 4 + part]! - samples[j * 4 + part]!);
  return apart;
}
