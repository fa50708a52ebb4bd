import type { LegendLine } from '../canvas/legend';
import type { Chart } from '../cells/chart';
import { colourDifference, labOf } from '../colour/difference';
import { hexToRgb, UNKNOWN_COLOUR } from '../colour/rgb';
import { skeleton } from './confusables';
import { likeness, type SymbolShape, type Turn, turned } from './shape';

/** Two symbols that the eye takes for each other. */
export interface LikePair {
  lines: [number, number];
  /** Likeness of the two shapes, 0…1. */
  shape: number;
  turn: Turn;
  /**
   * Alike in many printed fonts, however far apart ours are: listed as confusable by Unicode (UTS #39), or letters and
   * figures that a mirror or a half turn makes of each other.
   */
  listed: boolean;
  /** ΔE00 between the two colours; null where a tint is not known. */
  difference: number | null;
  /** Likeness of shape and tint together, 0…1; pairs are ranked by it. */
  risk: number;
}

/** From this likeness and this risk on, two symbols are named; chosen so that brackets and a turned dash are. */
const LIKE_FROM = 0.8;
const RISK_FROM = 0.65;
/** Tints this far apart (ΔE00) leave a third of the part of the risk that lies in the tint. */
const TINT_REACH = 30;
/** Where a tint is not known, it is reckoned to help somewhat. */
const UNKNOWN_DIFFERENCE = 12;

/**
 * Pairs of symbols that are easily mixed up, the riskiest first.
 * @param shapes by line, see `shapeOf`; lines without one are compared by their character alone
 */
export function likePairs(
  legend: readonly LegendLine[],
  shapes: ReadonlyMap<number, SymbolShape>,
): LikePair[] {
  const ready = new Map([...shapes].map(([line, shape]) => [line, turned(shape)]));
  const skeletons = legend.map(skeletonOf);
  const pairs: LikePair[] = [];
  legend.forEach((a, i) => {
    for (let j = i + 1; j < legend.length; j++) {
      const b = legend[j]!;
      const [first, second] = [ready.get(a.line), ready.get(b.line)];
      const { likeness: shape, turn } =
        first && second ? likeness(first, second) : { likeness: 0, turn: 'same' as const };
      const listed =
        a.symbol !== b.symbol && ((skeletons[i] !== null && skeletons[i] === skeletons[j]) || areTwins(a, b));
      const difference = a.hex === null || b.hex === null ? null : tintDifference(a, b);
      const tint = Math.exp(-(difference ?? UNKNOWN_DIFFERENCE) / TINT_REACH);
      const risk = Math.max(shape, listed ? LIKE_FROM : 0) * (0.5 + 0.5 * tint);
      if (listed || (shape >= LIKE_FROM && risk >= RISK_FROM))
        pairs.push({ lines: [a.line, b.line], shape, turn, listed, difference, risk });
    }
  });
  return pairs.sort((a, b) => b.risk - a.risk);
}

/** Letters and figures that become each other when the canvas is turned or mirrored (common practice, no source). */
const TWINS = ['69', 'pd', 'bq', 'bd', 'pq', 'bp', 'dq', 'un', 'MW', 'mw', 'ZN', 'zn', 'VΛ', 'AV', 'EƎ'];

function areTwins(a: LegendLine, b: LegendLine): boolean {
  if (a.drawing !== undefined || b.drawing !== undefined) return false;
  return TWINS.some((twin) => twin === `${a.symbol}${b.symbol}` || twin === `${b.symbol}${a.symbol}`);
}

/** What Unicode Technical Standard #39 calls the skeleton: confusable characters share it. Null for drawn symbols. */
function skeletonOf(line: LegendLine): string | null {
  return line.symbol === null || line.drawing !== undefined ? null : skeleton(line.symbol);
}

function tintDifference(a: LegendLine, b: LegendLine): number {
  return colourDifference(hexToRgb(a.hex ?? UNKNOWN_COLOUR), hexToRgb(b.hex ?? UNKNOWN_COLOUR));
}

/** Two colours a shade apart that touch on the canvas. */
export interface ShadePair {
  lines: [number, number];
  difference: number;
  /** Places where a cell of one has a cell of the other beside, above or below it. */
  meetings: number;
}

/** A shade apart: seen side by side, easily mixed up in the hand (see `differenceInWords`). */
const SHADE_BELOW = 4;

/** Pairs of near colours that meet on the canvas, those that meet most first. Without a chart, all near pairs. */
export function shadePairs(legend: readonly LegendLine[], chart: Chart | null): ShadePair[] {
  const near: ShadePair[] = [];
  legend.forEach((a, i) => {
    for (const b of legend.slice(i + 1)) {
      if (a.hex === null || b.hex === null || a.finish !== b.finish) continue;
      const difference = tintDifference(a, b);
      if (difference < SHADE_BELOW) near.push({ lines: [a.line, b.line], difference, meetings: 0 });
    }
  });
  if (!chart) return near.sort((a, b) => a.difference - b.difference);
  countMeetings(chart, near);
  return near.filter(({ meetings }) => meetings > 0).sort((a, b) => b.meetings - a.meetings);
}

function countMeetings(chart: Chart, pairs: { lines: [number, number]; meetings: number }[]): void {
  const key = (a: number, b: number) => (a < b ? a * 65_536 + b : b * 65_536 + a);
  const pairOf = new Map(pairs.map((pair) => [key(...pair.lines), pair]));
  if (pairOf.size === 0) return;
  const { width, height, cells } = chart;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const cell = y * width + x;
      const line = cells[cell]!;
      for (const other of [
        x + 1 < width ? cells[cell + 1]! : line,
        y + 1 < height ? cells[cell + width]! : line,
      ]) {
        if (other === line) continue;
        const pair = pairOf.get(key(line, other));
        if (pair) pair.meetings++;
      }
    }
  }
}

/** Lines whose printed symbol stands on a tint so dark that a light pad helps, darkest first. */
export function darkLines(legend: readonly LegendLine[]): number[] {
  return legend
    .filter((line) => line.hex !== null)
    .map((line) => ({ line: line.line, lightness: lightnessOf(line.hex!) }))
    .filter(({ lightness }) => lightness < DARK_BELOW)
    .sort((a, b) => a.lightness - b.lightness)
    .map(({ line }) => line);
}

/** CIE lightness below which print sinks into the tint in room light (common practice, no source). */
const DARK_BELOW = 25;

/** CIE lightness L* of a colour under D65, 0…100. */
export function lightnessOf(hex: string): number {
  return labOf(hexToRgb(hex)).l;
}

/** Where two colours stand most together. */
export interface Together {
  /** Column and row of the block's first cell, from 0, and its size. */
  x: number;
  y: number;
  width: number;
  height: number;
  /** Drills of each of the two in there. */
  drills: [number, number];
}

/** Side of the blocks that are looked at, in cells: the 10 × 10 block of the trade. */
const BLOCK = 10;

/** The 10 × 10 block in which the rarer of two lines has most drills; null where they never share one. */
export function whereTogether(chart: Chart, [a, b]: readonly [number, number]): Together | null {
  let best: Together | null = null;
  for (let y = 0; y < chart.height; y += BLOCK) {
    for (let x = 0; x < chart.width; x += BLOCK) {
      const width = Math.min(BLOCK, chart.width - x);
      const height = Math.min(BLOCK, chart.height - y);
      const drills: [number, number] = [0, 0];
      for (let row = y; row < y + height; row++) {
        for (let cell = row * chart.width + x; cell < row * chart.width + x + width; cell++) {
          if (chart.cells[cell] === a) drills[0]++;
          else if (chart.cells[cell] === b) drills[1]++;
        }
      }
      if (Math.min(drills[0], drills[1]) > (best ? Math.min(best.drills[0], best.drills[1]) : 0))
        best = { x, y, width, height, drills };
    }
  }
  return best;
}
