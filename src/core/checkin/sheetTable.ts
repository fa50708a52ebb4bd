import Papa from 'papaparse';
import { Refusal } from '../refusal';
import { unguarded } from '../words/csvGuard';
import { delimiterOf, NO_QUOTE } from '../words/delimiter';
import { largest, many } from '../words/numbers';
import { listedPairs } from './listedPairs';
import { areAmounts, type ColumnMapping, guessColumns, headingsIn, type SheetField } from './sheetColumns';
import type { SheetRow } from './sheetRow';
import { withoutBlocks } from './sideBySide';
import { spacedColumns } from './spacedColumns';

/** Something about the table as a whole, or a row of it that is no colour. */
export interface TableNotice {
  lineNumber: number | null;
  reason: string;
}

/** The sheet's table before anyone says what its columns mean. */
export interface SheetTable {
  /** Column names; made up as "Column 1" … when the sheet has no header. */
  columns: string[];
  hasHeader: boolean;
  /** Line of the header, from 1; null without one. */
  headerLine: number | null;
  rows: SheetRow[];
  /** Guess of what each field stands in: column index, or null. */
  mapping: ColumnMapping;
  /** Fields that were found by what stands in their column alone. */
  guessed: SheetField[];
  /** What was done with the table, and the rows above the header. */
  notices: TableNotice[];
}

/** What the reader may say of a sheet where the guess is wrong. */
export interface TableOptions {
  delimiter?: ',' | ';' | '\t' | '|' | null;
  /** Line of the header, from 1; 0 for none; null to have it found. */
  headerLine?: number | null;
}

export const MAX_SHEET_CHARACTERS = 1_000_000;
/** Empty ones too; looking through more would take long. */
const MAX_SHEET_LINES = 50_000;
/** As of a spreadsheet file. */
const MAX_SHEET_ROWS = 5000;
const MAX_SHEET_COLUMNS = 100;
/** A header stands in one of the first rows; titles and addresses may be above it. */
const HEADER_WITHIN = 30;
/** Text that is a table only in the program that shows it; some programs give it the name of a spreadsheet. */
const NO_ROWS: readonly (readonly [starts: RegExp, what: string])[] = [
  [/^\s*<(!doctype html|html|head|meta|style|body|table)[\s>]/i, 'a web page'],
  [/^\s*<\?xml\s/, 'an XML file'],
  [/^\s*\{\\rtf/, 'a text document'],
];

/**
 * Splits pasted or uploaded text into rows and guesses the columns.
 * Comma, semicolon, tab and upright stroke all serve, columns that stand under each other, and lists of codes and amounts
 * as one writes them by hand; quotes as in RFC 4180, but one that is never closed is a sign like others, so that it
 * swallows no line.
 * @throws Refusal with a sentence when the text is empty, absurdly long, or no table before a program shows it
 */
export function readSheetTable(text: string, options: TableOptions = {}): SheetTable {
  if (text.length > MAX_SHEET_CHARACTERS) {
    throw new Refusal('This text is longer than a million characters, so it cannot be an inventory sheet.');
  }
  const plain = text.replace(/^\uFEFF/, '');
  const page = NO_ROWS.find(([starts]) => starts.test(plain));
  if (page) {
    throw new Refusal(
      `This is ${page[1]}, not a table. Open it in the program that shows it, copy its rows and paste them.`,
    );
  }
  const lines = plain.split('\n').length;
  if (lines > MAX_SHEET_LINES)
    throw new Refusal(`This text has ${many(lines)} lines, so it cannot be an inventory sheet.`);
  const pairs = options.delimiter ? null : listedPairs(plain);
  if (pairs) return tableOfCells(pairs, options);
  const delimiter = options.delimiter ?? delimiterOf(plain);
  const spaced = delimiter === null || delimiter === ',' ? spacedColumns(plain) : null;
  // Commas may stand in its numbers: a table by its spaces has more columns than they would make.
  const byCommas = largest(plain.split('\n').map((line) => line.split(',').length));
  if (spaced && !options.delimiter && largest(spaced.map(({ length }) => length)) > byCommas)
    return tableOfCells(spaced, options);
  const parse = (quoteChar: string) =>
    Papa.parse<string[]>(plain, { delimiter: delimiter ?? ',', quoteChar });
  const quoted = parse('"');
  const broken = quoted.errors.find(({ type }) => type === 'Quotes');
  if (!broken)
    return tableOfCells(
      quoted.data.map((row) => row.map((cell) => unguarded(asText(cell)))),
      options,
    );
  const table = tableOfCells(parse(NO_QUOTE).data, options);
  const line = plain.split(/\r\n|\r|\n/).findIndex((each) => (each.match(/"/g)?.length ?? 0) % 2 === 1) + 1;
  const reason =
    'A quotation mark here is never closed; all quotation marks were read as ordinary characters.';
  return { ...table, notices: [{ lineNumber: line, reason }, ...table.notices] };
}

/**
 * The same for cells that are apart already, as a spreadsheet file gives them.
 * @throws Refusal when there is no cell with anything in it
 */
export function tableOfCells(cells: string[][], { headerLine = null }: TableOptions = {}): SheetTable {
  const rows = numbered(cells).filter((row) => row.cells.some((cell) => cell !== ''));
  if (rows.length === 0) throw new Refusal('The sheet is empty. Paste its rows, or choose its file.');
  if (rows.length > MAX_SHEET_ROWS) {
    throw new Refusal(
      `This has ${many(rows.length)} rows, and no inventory sheet has more than ${many(MAX_SHEET_ROWS)}.`,
    );
  }
  const columns = largest(rows.map((row) => row.cells.findLastIndex((cell) => cell !== '') + 1));
  if (columns > MAX_SHEET_COLUMNS) {
    throw new Refusal(
      `This has ${many(columns)} columns, and no inventory sheet has more than ${MAX_SHEET_COLUMNS}. Is the sign between the columns right?`,
    );
  }
  const named = headerLine === null ? headerAt(rows) : rows.findIndex((row) => row.lineNumber === headerLine);
  const unnamed = headerLine === null && named === -1 ? unknownHeaderAt(rows) : -1;
  const at = named === -1 ? unnamed : named;
  const header = at >= 0 ? rows[at]! : null;
  const above = header ? at : titlesAbove(rows);
  const notices: TableNotice[] = rows.slice(0, above).map((row) => ({
    lineNumber: row.lineNumber,
    reason: `Not read, because it stands above the ${header ? 'headings' : 'rows'}: ${shortened(wordsOf(row))}`,
  }));
  if (unnamed >= 0) {
    notices.push({
      lineNumber: rows[unnamed]!.lineNumber,
      reason: `Taken for headings, because its words stand above numbers: ${shortened(wordsOf(rows[unnamed]!))}`,
    });
  }
  const below = rows.slice(header ? at + 1 : above).filter((row) => !isRule(row));
  const isAgain = ({ cells }: SheetRow) => header !== null && cells.join('\t') === header.cells.join('\t');
  const again = below.filter(isAgain);
  if (again.length > 0) {
    notices.push({
      lineNumber: again[0]!.lineNumber,
      reason: `The headings come again${again.length > 1 ? ` ${many(again.length)} times` : ''}, as on a new page; these rows are no colours.`,
    });
  }
  const stacked = withoutBlocks(
    header,
    below.filter((row) => !isAgain(row)),
  );
  if (stacked.blocks > 1) {
    notices.push({
      lineNumber: header?.lineNumber ?? null,
      reason: `The sheet has ${many(stacked.blocks)} blocks side by side; they were read one after the other.`,
    });
  }
  const width = largest([stacked.header?.length ?? 0, ...stacked.rows.map((row) => row.cells.length)]);
  const { mapping, guessed } = guessColumns(
    stacked.header,
    stacked.rows.map((row) => row.cells),
  );
  return {
    columns: Array.from({ length: width }, (_, i) => stacked.header?.[i] || `Column ${i + 1}`),
    hasHeader: header !== null,
    headerLine: header?.lineNumber ?? null,
    rows: stacked.rows,
    mapping,
    guessed,
    notices,
  };
}

/** Columns that hold something and serve no field, by name. */
export function unusedColumns(table: SheetTable, mapping: ColumnMapping): string[] {
  const used = new Set(Object.values(mapping));
  return table.columns.filter(
    (_, column) => !used.has(column) && table.rows.some((row) => (row.cells[column] ?? '') !== ''),
  );
}

/** The row that names most fields, among the first; −1 where none names two, or one beside nothing but words. */
function headerAt(rows: readonly SheetRow[]): number {
  const counts = rows.slice(0, HEADER_WITHIN).map(({ cells }) => headingsIn(cells));
  const most = largest(counts);
  const at = counts.indexOf(most);
  if (most >= 2) return at;
  return most === 1 && rows.length > at + 1 && !/\d/.test(rows[at]!.cells.join('')) ? at : -1;
}

/** Rows enough to tell what a column holds. */
const JUDGED_ROWS = 50;

/**
 * The first row below the titles where it is headings in words that nobody knows here: two at least, no digit among them,
 * and one of them above amounts; −1 where it may be a colour.
 */
function unknownHeaderAt(rows: readonly SheetRow[]): number {
  const at = titlesAbove(rows);
  const { cells } = rows[at]!;
  const words = cells.flatMap((cell, column) => (cell === '' ? [] : [column]));
  if (words.length < 2 || /\p{Nd}/u.test(cells.join(''))) return -1;
  const below = rows.slice(at + 1, at + 1 + JUDGED_ROWS);
  const isAboveAmounts = (column: number) => {
    const values = below.flatMap((row) => row.cells[column] || []);
    return values.length > 1 && areAmounts(values);
  };
  return words.some(isAboveAmounts) ? at : -1;
}

/** How many rows above a table without headings are titles: words by themselves, where most rows have several cells. */
function titlesAbove(rows: readonly SheetRow[]): number {
  const filled = ({ cells }: SheetRow) => cells.filter((cell) => cell !== '');
  if (rows.filter((row) => filled(row).length > 1).length < rows.length / 2) return 0;
  // A code without its drills is no title.
  const first = rows.findIndex((row) => filled(row).length > 1 || /^\S*\d\S*$/.test(filled(row)[0]!));
  return Math.max(0, first);
}

/** A row that is only drawn, to part the headings from what is below. */
function isRule({ cells }: SheetRow): boolean {
  return cells.every((cell) => /^(?:[-–—=_:+*]{3,})?$/.test(cell));
}

/** A cell without what is written around a number so that spreadsheets keep it as a text: `="0310"`. */
function asText(cell: string): string {
  return cell.replace(/^\s*="([^"]*)"\s*$/, '$1');
}

/** What stands in a row, cell by cell. */
function wordsOf({ cells }: SheetRow): string {
  return cells.filter((cell) => cell !== '').join(' ');
}

function shortened(text: string): string {
  return text.length > 60 ? `${text.slice(0, 60)}…` : text;
}

function numbered(data: string[][]): SheetRow[] {
  let lineNumber = 1;
  return data.map((raw) => {
    const row = { lineNumber, cells: raw.map((cell) => cell.trim()) };
    lineNumber += 1 + raw.reduce((breaks, cell) => breaks + (cell.match(/\n/g)?.length ?? 0), 0);
    return row;
  });
}
