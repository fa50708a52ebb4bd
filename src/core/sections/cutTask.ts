import type { CellRect, Chart } from '../cells/chart';

/** What a canvas is cut by. */
export interface CutTask {
  /** Legend line of each cell; 0 where there is nothing to lay, or where the cell belongs to no piece that is cut here. */
  chart: Chart;
  /** Seconds that each cell takes, see `secondsPerCell`. */
  seconds: Float32Array;
  /** The same with its share of the openings in a section thereabouts: what large areas are weighed by. */
  load: Float32Array;
  /** Seconds for opening a colour. */
  opening: number;
  /** The rectangle that is cut. */
  area: CellRect;
  /** Seconds of a sitting. */
  target: number;
  /** Cuts fall on multiples of so many cells only, where the area leaves room for that; 1 for any. */
  snap: number;
  /** Largest piece, in cells, as a light pad or an arm allows; Infinity for any. */
  most: { width: number; height: number };
  /** How much an opened colour counts against evenness: 1 is usual, more saves openings. */
  thrift: number;
  /** Up to so many sittings are cut by trying all likely cuts, more are halved first: 2 for a quick start, 4 for a good end. */
  tried: number;
}

/** A piece with what it holds. */
export interface CutPiece {
  rect: CellRect;
  seconds: number;
  colours: number;
}

/** From this share of a sitting on a piece is uneven, and every bit more costs dearly. */
const EVEN = 0.08;

/**
 * What a piece costs: the colours that it opens, and how far it is from the sitting that was asked for, which weighs
 * little within {@link EVEN} and heavily beyond. In openings.
 */
export function pieceCost(
  { target, thrift }: Pick<CutTask, 'target' | 'thrift'>,
  seconds: number,
  colours: number,
): number {
  const off = Math.abs(seconds / target - 1);
  const beyond = Math.max(0, off - EVEN);
  return colours * thrift + 8 * off * off + 60 * beyond + 1200 * beyond * beyond;
}

/** How many sittings an area takes: at least one. */
export function sittingsIn({ chart, load, area, target }: CutTask): number {
  let all = 0;
  for (let y = area.y; y < area.y + area.height; y++) {
    for (let cell = y * chart.width + area.x, end = cell + area.width; cell < end; cell++) all += load[cell]!;
  }
  return Math.max(1, Math.round(all / target));
}
