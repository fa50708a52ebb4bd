import { type Corners, isUpright, squareToQuad } from './corners';
import type { Picture } from './edges';
import type { Size } from './findCells';

/** One colour a cell, and how clearly it is the cell's. */
export interface CellColours {
  /** 4 × width × height bytes, sRGB. */
  rgba: Uint8Array;
  /** Share of what was looked at in each cell that has its colour, 0…1; null where a cell is one pixel. */
  agreement: Float32Array | null;
}

/** The inner part of a cell that is looked at; its rim may hold grid lines or blur from the next cell. */
const INNER_SHARE = 0.6;
const MOST_SAMPLES_A_SIDE = 7;
/** Samples that differ by no more than this (sum over the parts) are one ink. */
const ONE_INK = 36;
/** A drawing to a hundredth of a pixel is upright. */
const UPRIGHT_PX = 0.01;

/** The ink that covers most of each cell's inner part, so that a printed symbol or grid line does not count. */
export function cellColours(picture: Picture, size: Size, corners: Corners): CellColours {
  const rgba = new Uint8Array(size.width * size.height * 4);
  const [first, , last] = corners;
  const cellWidth = (Math.hypot(corners[1].x - first.x, corners[1].y - first.y) || 1) / size.width;
  const cellHeight = (Math.hypot(corners[3].x - first.x, corners[3].y - first.y) || 1) / size.height;
  const isUp = isUpright(corners, UPRIGHT_PX);
  if (isUp && first.x === 0 && first.y === 0 && last.x === size.width && last.y === size.height) {
    rgba.set(picture.rgba.subarray(0, rgba.length));
    return { rgba, agreement: null };
  }
  const across = offsets(cellWidth);
  const down = offsets(cellHeight);
  const agreement = new Float32Array(size.width * size.height);
  const samples = new Uint8Array(across.length * down.length * 4);
  const placeOf = isUp ? null : squareToQuad(corners);
  for (let y = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++) {
      let at = 0;
      for (const dy of down) {
        for (const dx of across) {
          const spot = placeOf
            ? placeOf((x + dx) / size.width, (y + dy) / size.height)
            : { x: first.x + (x + dx) * cellWidth, y: first.y + (y + dy) * cellHeight };
          const row = Math.min(picture.height - 1, Math.max(0, Math.floor(spot.y)));
          const column = Math.min(picture.width - 1, Math.max(0, Math.floor(spot.x)));
          const from = (row * picture.width + column) * 4;
          for (let part = 0; part < 4; part++) samples[at++] = picture.rgba[from + part]!;
        }
      }
      const cell = y * size.width + x;
      agreement[cell] = commonInk(samples, rgba, cell * 4);
    }
  }
  return { rgba, agreement };
}

/** Where a cell of so many pixels is looked at, as shares of its side. */
function offsets(cellPx: number): number[] {
  const count = Math.max(1, Math.min(MOST_SAMPLES_A_SIDE, Math.floor(cellPx * INNER_SHARE)));
  return Array.from({ length: count }, (_, i) => (1 - INNER_SHARE) / 2 + (INNER_SHARE * (i + 0.5)) / count);
}

/**
 * Writes the colour that most samples share: exactly, where a third of them are the same, else their mean.
 * @returns share of the samples that have about this colour
 */
function commonInk(samples: Uint8Array, out: Uint8Array, to: number): number {
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
    return Math.max(nearest, sameMost) / count;
  }
  for (let part = 0; part < 4; part++) {
    let sum = 0;
    for (let j = 0; j < count; j++) {
      if (difference(samples, middle, j) <= ONE_INK) sum += samples[j * 4 + part]!;
    }
    out[to + part] = Math.round(sum / nearest);
  }
  return nearest / count;
}

function difference(samples: Uint8Array, i: number, j: number): number {
  let apart = 0;
  for (let part = 0; part < 4; part++) apart += Math.abs(samples[i * 4 + part]! - samples[j * 4 + part]!);
  return apart;
}
