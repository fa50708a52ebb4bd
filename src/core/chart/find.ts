import type { Canvas } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import type { CellRect, Chart } from '../cells/chart';
import { findLine } from '../codes/findLine';

/** What was looked for on a chart. */
export type Find =
  | { kind: 'cell'; x: number; y: number }
  | { kind: 'section'; number: number }
  | { kind: 'colour'; lines: LegendLine[] }
  | { kind: 'fault'; words: string };

const MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, '"': 25.4, '″': 25.4 };
const LENGTH = String.raw`(\d+(?:[.,]\d+)?)\s*(mm|cm|in|"|″)?`;
const TWO = new RegExp(String.raw`^${LENGTH}\s*([lr]?)[\s,;x×/]+${LENGTH}\s*([tb]?)$`, 'i');
const SECTION = /^s(?:ection)?\s*(\d+)$/i;

/**
 * Reads what was typed into the find field:
 * - `120 85`: column and row from 1;
 * - `12.5 cm 8 cm`, `5 in 3 in`: distance from the left and upper edge, `r` and `b` behind a length count from the right
 *   and lower edge (`12 cm r 8 cm b`);
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
  if (two) return cellOf(two, canvas);
  const section = SECTION.exec(text);
  const colour = findLine(text, legend);
  if (section && colour.kind === 'none') return { kind: 'section', number: Number(section[1]) };
  if (colour.kind === 'one') return { kind: 'colour', lines: [colour.line] };
  if (colour.kind === 'several') return { kind: 'colour', lines: colour.lines };
  return {
    kind: 'fault',
    words: `“${text}” is no colour of this kit. A place is written as column and row, like 120 85, or as 12.5 cm 8 cm.`,
  };
}

function cellOf(two: RegExpExecArray, canvas: Pick<Canvas, 'width' | 'height' | 'pitchMm'>): Find {
  const [, first, firstUnit, side, second, secondUnit, end] = two;
  const unit = (secondUnit ?? firstUnit)?.toLowerCase();
  const place = (text: string, own: string | undefined, length: number, fromEnd: boolean): number => {
    const value = Number(text.replace(',', '.'));
    const mm = MM[(own ?? unit ?? '').toLowerCase()];
    // A distance ends in the cell that it touches; a number of cells is the cell itself.
    const cell = mm === undefined ? value - 1 : Math.ceil((value * mm) / canvas.pitchMm) - 1;
    return fromEnd ? length - 1 - cell : cell;
  };
  const x = place(first!, firstUnit, canvas.width, side?.toLowerCase() === 'r');
  const y = place(second!, secondUnit, canvas.height, end?.toLowerCase() === 'b');
  if (
    !Number.isInteger(x) ||
    !Number.isInteger(y) ||
    x < 0 ||
    y < 0 ||
    x >= canvas.width ||
    y >= canvas.height
  ) {
    return {
      kind: 'fault',
      words: `That is beside the canvas, which has ${canvas.width} columns and ${canvas.height} rows.`,
    };
  }
  return { kind: 'cell', x, y };
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
