import Papa from 'papaparse';
import { delimiterOf, NO_QUOTE } from '../../words/delimiter';

/** Words in a grid that mean "nothing here". */
export const NOTHING_HERE: ReadonlySet<string> = new Set(['', '0', '.', '·']);

/** Fewer numbers in a row than these may well be symbols. */
const LEAST_NUMBERED = 8;

/**
 * The rows of a grid as text, a row of the canvas a line, its words parted by comma, semicolon, tab or upright stroke.
 * Where the quotation mark is a symbol itself, as rows of one length show, nothing is quoted.
 */
export function gridRows(text: string): string[][] {
  const lines = text.replace(/^\uFEFF/, '').replace(/(\r?\n)+$/, '');
  const parted = (quoteChar: string) =>
    Papa.parse<string[]>(lines, { delimiter: delimiterOf(lines, quoteChar) ?? ',', quoteChar }).data;
  const rows = parted('"');
  if (isEven(rows) || !lines.includes('"')) return rows;
  const unquoted = parted(NO_QUOTE);
  return isEven(unquoted) ? unquoted : rows;
}

const isEven = (rows: readonly string[][]) => rows.every(({ length }) => length === rows[0]!.length);

type LeftOut = 'first row' | 'first column';

/**
 * A grid without the row above and the column to the left that number its columns and rows.
 * @returns the grid as it was where nothing is numbered, and what was left out, in words
 */
export function withoutNumbers(rows: readonly string[][]): {
  rows: readonly string[][];
  leftOut: LeftOut[];
} {
  const [top = []] = rows;
  const left = rows.map((row) => row[0] ?? '');
  // Where both are numbered they meet in a corner that counts nothing.
  const both = isNumbered(top.slice(1)) && isNumbered(left.slice(1));
  const byRow = both || (isNumbered(top) && !isNumbered(left));
  const byColumn = both || (isNumbered(left) && !isNumbered(top));
  return {
    rows: rows.slice(byRow ? 1 : 0).map((row) => row.slice(byColumn ? 1 : 0)),
    leftOut: [...(byRow ? ['first row' as const] : []), ...(byColumn ? ['first column' as const] : [])],
  };
}

export function leftOutInWords(leftOut: readonly LeftOut[]): string {
  return `The ${leftOut.join(' and the ')} of the grid ${leftOut.length > 1 ? 'number' : 'numbers'} its squares and ${leftOut.length > 1 ? 'were' : 'was'} left out.`;
}

/** Whether words count 1, 2, 3 … without a gap. */
function isNumbered(words: readonly string[]): boolean {
  return words.length >= LEAST_NUMBERED && words.every((word, i) => word.trim() === String(i + 1));
}
