import Papa from 'papaparse';
import { Refusal } from '../refusal';
import { largest } from '../words/numbers';

/** One row of a sheet as it came, with the line of the file on which it starts (from 1). */
export interface SheetRow {
  lineNumber: number;
  cells: string[];
}

/** The sheet's table before anyone says what its columns mean. */
export interface SheetTable {
  /** Column names; made up as "Column 1" … when the sheet has no header. */
  columns: string[];
  hasHeader: boolean;
  rows: SheetRow[];
  /** Guess of what each field stands in: column index, or null. */
  mapping: ColumnMapping;
}

/** What a sheet may tell about a colour. */
export const SHEET_FIELDS = [
  'keyNumber',
  'symbol',
  'code',
  'name',
  'hex',
  'finish',
  'neededDrills',
  'packets',
] as const;
export type SheetField = (typeof SHEET_FIELDS)[number];
export type ColumnMapping = Record<SheetField, number | null>;

export const FIELD_IN_WORDS: Record<SheetField, string> = {
  keyNumber: 'Key number',
  symbol: 'Symbol',
  code: 'Colour code',
  name: 'Colour name',
  hex: 'Colour (hex)',
  finish: 'Finish',
  neededDrills: 'Drills needed',
  packets: 'Packets',
};

/** Header words by which a column is recognised, without spaces or punctuation, in lower case. */
const HEADER_WORDS: Record<SheetField, readonly string[]> = {
  keyNumber: ['key', 'keynumber', 'keyno', 'no', 'nr', 'number', 'position', 'pos', 'index', 'id', '#'],
  symbol: ['symbol', 'sym', 'sign', 'mark', 'icon', 'glyph'],
  code: ['code', 'colourcode', 'colorcode', 'colour', 'color', 'drillcode', 'colourno', 'colorno', 'shade'],
  name: ['name', 'colourname', 'colorname', 'description', 'title'],
  hex: ['hex', 'rgb', 'hexcode', 'colourhex', 'colorhex', 'swatch', 'srgb'],
  finish: ['finish', 'type', 'kind', 'surface', 'drilltype', 'effect'],
  neededDrills: [
    'drills',
    'drillsneeded',
    'needed',
    'neededdrills',
    'count',
    'quantity',
    'qty',
    'amount',
    'pieces',
    'pcs',
    'total',
    'cells',
    'stones',
  ],
  packets: ['packets', 'packet', 'bags', 'bag', 'packs', 'pack', 'pkts', 'pkt', 'packages'],
};

export const MAX_SHEET_CHARACTERS = 1_000_000;

/**
 * Splits pasted or uploaded text into rows and guesses the columns.
 * Comma, semicolon and tab all serve; quotes as in RFC 4180.
 * @throws Refusal with a sentence when the text is empty or absurdly long
 */
export function readSheetTable(text: string): SheetTable {
  if (text.length > MAX_SHEET_CHARACTERS) {
    throw new Refusal('This text is longer than a million characters, so it cannot be an inventory sheet.');
  }
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    delimiter: '',
    delimitersToGuess: ['\t', ';', ','],
  });
  return tableOfCells(parsed.data);
}

/**
 * The same for cells that are apart already, as a spreadsheet file gives them.
 * @throws Refusal when there is no cell with anything in it
 */
export function tableOfCells(cells: string[][]): SheetTable {
  const rows = numbered(cells).filter((row) => row.cells.some((cell) => cell !== ''));
  const first = rows[0];
  if (first === undefined) throw new Refusal('The sheet is empty. Paste its rows, or choose its file.');
  const guess = guessMapping(first.cells);
  const recognised = SHEET_FIELDS.filter((field) => guess[field] !== null).length;
  const hasHeader =
    recognised >= 2 || (recognised === 1 && rows.length > 1 && !/\d/.test(first.cells.join('')));
  const width = largest(rows.map((row) => row.cells.length));
  return {
    columns: Array.from({ length: width }, (_, i) => (hasHeader && first.cells[i]) || `Column ${i + 1}`),
    hasHeader,
    rows: hasHeader ? rows.slice(1) : rows,
    mapping: hasHeader ? guess : emptyMapping(),
  };
}

export function emptyMapping(): ColumnMapping {
  return Object.fromEntries(SHEET_FIELDS.map((field) => [field, null])) as ColumnMapping;
}

/** Finds the column of each field by its header; a column serves one field only. */
export function guessMapping(header: readonly string[]): ColumnMapping {
  const plain = header.map((name) => name.toLowerCase().replace(/[^a-z0-9#]/g, ''));
  const mapping = emptyMapping();
  const taken = new Set<number>();
  for (const field of SHEET_FIELDS) {
    const index = HEADER_WORDS[field]
      .map((word) => plain.findIndex((name, i) => name === word && !taken.has(i)))
      .find((i) => i >= 0);
    if (index !== undefined) {
      mapping[field] = index;
      taken.add(index);
    }
  }
  return mapping;
}

function numbered(data: string[][]): SheetRow[] {
  let lineNumber = 1;
  return data.map((raw) => {
    const row = { lineNumber, cells: raw.map((cell) => cell.trim()) };
    lineNumber += 1 + raw.reduce((breaks, cell) => breaks + (cell.match(/\n/g)?.length ?? 0), 0);
    return row;
  });
}
