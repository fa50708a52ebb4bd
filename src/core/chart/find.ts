import type { Canvas } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import type { CellRect, Chart } from '../cells/chart';
import { findLine } from '../codes/findLine';

/** What was looked for on a chart. */
export type Find =
  | { kind: 'cell'; x: number; y: number }
  | { kind: 'section'; number: number }
  | { kind: 'colour'; lines: LegendLine[] }
  /** Two lengths without a unit; each offer is the same with one. */
  | { kind: 'unit'; offers: { unit: string; typed: string }[] }
  | { kind: 'fault'; words: string };

const MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, '"': 25.4, '″': 25.4 };
const FRACTIONS: Record<string, number> = {
  '½': 1 / 2,
  '¼': 1 / 4,
  '¾': 3 / 4,
  '⅛': 1 / 8,
  '⅜': 3 / 8,
  '⅝': 5 / 8,
  '⅞': 7 / 8,
};
const SIGNS = Object.keys(FRACTIONS).join('');
/** `12`, `12.5`, `5 1/2`, `5½`, `3/4`. */
const NUMBER = String.raw`\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?[${SIGNS}]?|[${SIGNS}]`;
const UNIT = 'mm|cm|in(?:ch(?:es)?)?|"|″';
/** A length or a number of cells, or either from an edge mark on: `150+7`, `150-1.5 cm`. */
const PLACE = String.raw`(?:(\d+)\s*([+−-])\s*)?(${NUMBER})\s*(${UNIT})?`;
const TWO = new RegExp(String.raw`^${PLACE}\s*([lr]?)[\s,;x×]+${PLACE}\s*([tb]?)$`, 'i');
const SECTION = /^s(?:ection)?\s*(\d+)$/i;

/**
 * Reads what was typed into the find field:
 * - `120 85`: column and row from 1;
 * - `12.5 cm 8 cm`, `5 1/2 in 3¼ in`: distance from the left and upper edge, `r` and `b` behind a length count from the
 *   right and lower edge (`12 cm r 8 cm b`); broken numbers without a unit are asked about;
 * - `150+7 100-4`: from the nearest edge marks, to the right and down or back; lengths as well (`150+1.5 cm 100-1 cm`);
 * - `s12`: a section;
 * - anything else: a colour by code, symbol or key number.
 */
export function readFind(
  typed: string,
  canvas: Pick<Canvas, 'width' | 'height' | 'pitchMm'>,
  legend: readonly LegendLine[],
): Find {
  const text = typed.trim();
  const two = TWO.exec(text);
  if (two) return placesOf(two, canvas);
  const section = SECTION.exec(text);
  const colour = findLine(text, legend);
  if (section && colour.kind === 'none') return { kind: 'section', number: Number(section[1]) };
  if (colour.kind === 'one') return { kind: 'colour', lines: [colour.line] };
  if (colour.kind === 'several') return { kind: 'colour', lines: colour.lines };
  return {
    kind: 'fault',
    words: `“${text}” is no colour of this kit. A place is written as column and row, like 120 85, as 12.5 cm 8 cm, or from edge marks, like 150+7 100-4.`,
  };
}

/** One of the two places that were typed. */
interface TypedPlace {
  /** The edge mark from which it counts, and whether onwards (1) or back (−1); null from the edge. */
  mark: { cells: number; way: 1 | -1 } | null;
  value: number;
  unit: string | null;
  fromEnd: boolean;
}

function placesOf(two: RegExpExecArray, canvas: Pick<Canvas, 'width' | 'height' | 'pitchMm'>): Find {
  const [, markX, wayX, x, unitX, endX, markY, wayY, y, unitY, endY] = two;
  const common = unitOf(unitY) ?? unitOf(unitX);
  const place = (
    mark: string | undefined,
    way: string | undefined,
    number: string,
    unit: string | undefined,
    fromEnd: boolean,
  ): TypedPlace => ({
    mark: mark === undefined ? null : { cells: Number(mark), way: way === '+' ? 1 : -1 },
    value: numberOf(number),
    // One unit behind the second length holds for both; cells from an edge mark are cells.
    unit: unitOf(unit) ?? (mark === undefined ? common : null),
    fromEnd,
  });
  const across = place(markX, wayX, x!, unitX, endX?.toLowerCase() === 'r');
  const down = place(markY, wayY, y!, unitY, endY?.toLowerCase() === 'b');
  if ([across, down].some(({ value, unit }) => unit === null && !Number.isInteger(value))) {
    return {
      kind: 'unit',
      offers: ['cm', 'in', 'mm'].map((unit) => ({ unit, typed: withUnit(two, unit) })),
    };
  }
  const cell = {
    x: cellAt(across, canvas.width, canvas.pitchMm),
    y: cellAt(down, canvas.height, canvas.pitchMm),
  };
  if (cell.x < 0 || cell.y < 0 || cell.x >= canvas.width || cell.y >= canvas.height) {
    return {
      kind: 'fault',
      words: `That is outside the canvas, which has ${canvas.width} columns and ${canvas.height} rows.`,
    };
  }
  return { kind: 'cell', ...cell };
}

/** What was typed, each length with the unit. */
function withUnit(two: RegExpExecArray, unit: string): string {
  const [, markX, wayX, x, unitX, endX, markY, wayY, y, unitY, endY] = two;
  const one = (
    mark: string | undefined,
    way: string | undefined,
    n: string,
    own: string | undefined,
    end: string,
  ) => `${mark === undefined ? '' : `${mark}${way}`}${n} ${own ?? unit}${end === '' ? '' : ` ${end}`}`;
  return `${one(markX, wayX, x!, unitX, endX ?? '')} ${one(markY, wayY, y!, unitY, endY ?? '')}`;
}

function unitOf(text: string | undefined): string | null {
  if (text === undefined) return null;
  const unit = text.toLowerCase();
  return unit.startsWith('in') ? 'in' : unit;
}

/** @example numberOf('5 1/2') // 5.5 */
function numberOf(text: string): number {
  const sign = text.at(-1)!;
  if (sign in FRACTIONS) return Number(text.slice(0, -1).replace(',', '.') || 0) + FRACTIONS[sign]!;
  const parts = /^(?:(\d+)\s+)?(\d+)\/(\d+)$/.exec(text);
  if (parts) return Number(parts[1] ?? 0) + Number(parts[2]) / Number(parts[3]);
  return Number(text.replace(',', '.'));
}

/** The cell of a place, from 0; beside the canvas where it is there. */
function cellAt({ mark, value, unit, fromEnd }: TypedPlace, length: number, pitchMm: number): number {
  // A distance ends in the cell that it touches; a number of cells is the cell itself.
  const cells = unit === null ? value : Math.ceil((value * MM[unit]!) / pitchMm - 1e-9);
  if (mark) {
    // A mark stands behind its cell: one onwards is the next, one back is the cell itself.
    return mark.way === 1 ? mark.cells + cells - 1 : mark.cells - cells;
  }
  return fromEnd ? length - cells : cells - 1;
}

/** The next cell of a line after `from` in reading order, round the end; null where the line is nowhere. */
export function nextOf(chart: Chart, line: number, from: number): { x: number; y: number } | null {
  const after = chart.cells.indexOf(line, from + 1);
  const cell = after >= 0 ? after : chart.cells.indexOf(line);
  return cell < 0 ? null : { x: cell % chart.width, y: Math.floor(cell / chart.width) };
}

/** A view of the surroundings of a cell: about five centimetres across, kept on the canvas. */
export function rectAround(x: number, y: number, size: { width: number; height: number }): CellRect {
  const width = Math.min(size.width, 24);
  const height = Math.min(size.height, 14);
  const within = (start: number, most: number) => Math.max(0, Math.min(most, start));
  return {
    x: within(x - Math.floor(width / 2), size.width - width),
    y: within(y - Math.floor(height / 2), size.height - height),
    width,
    height,
  };
}

/** Colours with the fewest drills on the chart first; those that are nowhere come last. */
export function rarest(lines: readonly LegendLine[], counts: ArrayLike<number>): LegendLine[] {
  const rank = ({ line }: LegendLine) => counts[line]! || Number.POSITIVE_INFINITY;
  return [...lines].sort((a, b) => rank(a) - rank(b));
}
