import { type LegendLine, symbolOrKey } from '../canvas/legend';
import type { Chart } from '../cells/chart';
import { readWords, wordsOfKind } from '../codes/legendWords';
import { counted } from '../words/numbers';
import type { CellEdit } from './edit';

/** Rows (or a column, to check) as they were typed, compared with the chart. */
export interface TypedCells {
  /** Line of each cell, row by row; null where the word is on no line. */
  rows: (number | null)[][];
  /** What is wrong, as a sentence; null when it can be taken. */
  fault: string | null;
  /** Places from 1 where the chart has something else. */
  differs: { column: number; row: number }[];
}

/** Where typed cells go, from 0. */
export type TypedAt =
  /** `part` allows rows to be shorter than the canvas; they begin at `column`. */
  { row: number; column: number; part: boolean } | { column: number };

/**
 * Reads rows (or, to check, a column) of symbols, a line of text each. With spaces, commas or tabs between them, words may
 * be codes or key numbers; without, every sign is a symbol (or the key number that stands for one), as people count signs. `12*A` stands for twelve times A, a star
 * alone is a star; `.` wants no drill. A comma, semicolon or star that is a symbol of the kit is one.
 */
export function readTyped(
  text: string,
  chart: Chart,
  legend: readonly LegendLine[],
  at: TypedAt,
): TypedCells {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const symbols = new Set(legend.map(({ symbol }) => symbol));
  const typed = lines.map((line) => wordsTyped(line, symbols));
  const counts = new Map<string, number>();
  for (const { word, times, isSign } of typed.flat())
    if (!isSign) counts.set(word, (counts.get(word) ?? 0) + times);
  // All rows are read in one way.
  const { looseLineOf } = readWords(legend, counts);
  const bySign = wordsOfKind(
    legend.map((each) => ({ ...each, symbol: symbolOrKey(each) })),
    'symbols',
  );
  const rows = typed.map((words) =>
    words.flatMap(({ word, times, isSign }) => {
      const line = isSign ? bySign.get(word) : looseLineOf(word);
      return new Array<number | null>(times).fill(line ?? (word === '.' ? 0 : null));
    }),
  );
  const fault = rows.length === 0 ? 'Nothing is typed yet.' : faultInTyped(rows, chart, at);
  return { rows, fault, differs: fault === null ? differing(rows, chart, at) : [] };
}

function faultInTyped(rows: readonly (number | null)[][], chart: Chart, at: TypedAt): string | null {
  if (!('row' in at)) {
    if (rows.length > 1) return 'One column is checked at a time.';
    return faultInLine(rows[0]!, `Column ${at.column + 1}`, chart.height, false);
  }
  if (at.row + rows.length > chart.height) {
    return `From row ${at.row + 1} on the canvas has ${counted(chart.height - at.row, 'row')}; these are ${rows.length}.`;
  }
  for (const [i, row] of rows.entries()) {
    const fault = faultInLine(row, `Row ${at.row + i + 1}`, chart.width - at.column, at.part);
    if (fault !== null) return fault;
  }
  return null;
}

function faultInLine(
  cells: readonly (number | null)[],
  what: string,
  length: number,
  part: boolean,
): string | null {
  const unknown = cells.indexOf(null);
  if (unknown >= 0) return `Square ${unknown + 1} of ${what.toLowerCase()} is no symbol of this kit.`;
  if (cells.length > length || (cells.length < length && !part))
    return `${what} has ${counted(length, 'square')}; this is ${cells.length}.`;
  return null;
}

/** Calls back with every typed cell and where it goes. */
function forEachTyped(
  rows: readonly (number | null)[][],
  at: TypedAt,
  visit: (place: { column: number; row: number }, line: number) => void,
): void {
  for (const [j, row] of rows.entries()) {
    for (const [i, line] of row.entries()) {
      if (line === null) continue;
      if ('row' in at) visit({ column: at.column + i, row: at.row + j }, line);
      else visit({ column: at.column, row: i }, line);
    }
  }
}

function differing(rows: readonly (number | null)[][], chart: Chart, at: TypedAt): TypedCells['differs'] {
  const differs: TypedCells['differs'] = [];
  forEachTyped(rows, at, ({ column, row }, line) => {
    if (chart.cells[row * chart.width + column] !== line) differs.push({ column: column + 1, row: row + 1 });
  });
  return differs;
}

const letters = new Intl.Segmenter('en', { granularity: 'grapheme' });

interface TypedWord {
  word: string;
  /** How often it stands there. */
  times: number;
  /** One of a row of signs with nothing between them. */
  isSign: boolean;
}

/** The words of a typed row: parted by blanks, or each sign as people count signs. */
function wordsTyped(text: string, symbols: ReadonlySet<string | null>): TypedWord[] {
  const between = [',', ';'].filter((sign) => !symbols.has(sign)).join('');
  const parted = text.split(new RegExp(`[\\s${between}]+`)).filter((word) => word !== '');
  const repeated = (word: string): TypedWord => {
    const many = /^(\d{1,4})\*(.+)$/u.exec(word);
    return { word: many ? many[2]! : word, times: many ? Number(many[1]) : 1, isSign: false };
  };
  const isRepeated = !symbols.has('*') && /^\d{1,4}\*./u.test(parted[0] ?? '');
  if (parted.length > 1 || isRepeated) return parted.map(repeated);
  return [...letters.segment(parted[0] ?? '')].map(({ segment }) => ({
    word: segment,
    times: 1,
    isSign: true,
  }));
}

/** The change that puts typed rows onto the chart, one edit a line. */
export function typedEdits(typed: TypedCells, chart: Chart, at: TypedAt & { row: number }): CellEdit[] {
  const byLine = new Map<number, number[]>();
  forEachTyped(typed.rows, at, ({ column, row }, line) => {
    const runs = byLine.get(line) ?? [];
    const cell = row * chart.width + column;
    const last = runs.length - 2;
    if (last >= 0 && runs[last]! + runs[last + 1]! === cell) runs[last + 1]!++;
    else runs.push(cell, 1);
    byLine.set(line, runs);
  });
  return [...byLine].map(([line, runs]) => ({ line, runs }));
}
