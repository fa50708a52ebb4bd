import type { LegendLine } from '../canvas/legend';
import { SHEET_FIELDS, type SheetField } from '../checkin/sheetColumns';
import { readSheetLines } from '../checkin/sheetLines';
import { readSheetTable } from '../checkin/sheetTable';
import { readColourName } from '../colour/names';
import { readHex } from '../colour/rgb';
import type { WishedColour } from './colourList';

/** A row of the colour list as it is typed, every field as text. */
export type TypedRow = Record<SheetField, string> & {
  /** Identity of the row on the screen. */
  key: string;
  /** Number of the colour that it is; null for a new one. */
  line: number | null;
};

/** Fields from left to right. */
export const TYPED_FIELDS = SHEET_FIELDS;

export function emptyRow(key: string): TypedRow {
  const fields = Object.fromEntries(SHEET_FIELDS.map((field) => [field, ''])) as Record<SheetField, string>;
  return { ...fields, key, line: null };
}

/** A colour of the list as it is typed. */
export function typedRow(colour: LegendLine, key: string): TypedRow {
  return {
    key,
    line: colour.line,
    keyNumber: colour.keyNumber,
    symbol: colour.symbol ?? '',
    code: colour.code,
    name: colour.name,
    hex: colour.hex ?? '',
    finish: colour.finish === 'plain' ? '' : colour.finish,
    neededDrills: String(colour.neededDrills),
    packets: String(colour.packets),
  };
}

export function isEmptyRow(row: TypedRow): boolean {
  return SHEET_FIELDS.every((field) => row[field].trim() === '');
}

/** A list as typed, understood. */
export interface TypedList {
  colours: WishedColour[];
  /** What is wrong, by the key of its row. */
  faults: ReadonlyMap<string, string>;
  /** What the reader should know, by the key of its row. */
  notices: ReadonlyMap<string, string>;
}

/** Reads the rows as a sheet is read, so that both say the same of the same. Empty rows are passed over. */
export function readTypedList(rows: readonly TypedRow[]): TypedList {
  const filled = rows.filter((row) => !isEmptyRow(row));
  const reading = readSheetLines(
    filled.map((row, i) => ({ lineNumber: i + 1, cells: SHEET_FIELDS.map((field) => cellOf(row, field)) })),
    Object.fromEntries(SHEET_FIELDS.map((field, i) => [field, i])) as Record<SheetField, number>,
    { totals: false },
  );
  const byRow = (list: { lineNumber: number; reason: string }[]) =>
    new Map(list.map(({ lineNumber, reason }) => [filled[lineNumber - 1]!.key, reason]));
  const faults = byRow(reading.faults);
  const good = filled.filter(({ key }) => !faults.has(key));
  return {
    colours: reading.lines.map((colour, i) => ({ ...colour, line: good[i]!.line })),
    faults,
    notices: byRow(reading.notices),
  };
}

function cellOf(row: TypedRow, field: SheetField): string {
  const text = row[field].trim();
  if (field !== 'hex' || text === '') return text;
  return readHex(text) ?? readColourName(text) ?? text;
}

/**
 * Puts pasted cells into the rows from one cell on; rows that are wanting are added.
 * @param text as a spreadsheet or a table puts it on the clipboard
 * @param newKey gives the key of a new row
 */
export function pastedInto(
  rows: readonly TypedRow[],
  at: number,
  field: SheetField,
  text: string,
  newKey: () => string,
): TypedRow[] {
  const cells = readSheetTable(text, { headerLine: 0 }).rows.map((row) => row.cells);
  const first = SHEET_FIELDS.indexOf(field);
  const next = rows.map((row) => ({ ...row }));
  cells.forEach((values, y) => {
    while (next.length <= at + y) next.push(emptyRow(newKey()));
    values.forEach((value, x) => {
      const name = SHEET_FIELDS[first + x];
      if (name) next[at + y]![name] = value;
    });
  });
  return next;
}
