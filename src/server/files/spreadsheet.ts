import writeExcelFile from 'write-excel-file/node';
import { counted, many } from '../../core/words/numbers';
import { Problem, unreadable } from '../http/problem';
import { openDocumentCells, openDocumentSheets } from './openDocument';
import { cellsOf, workbookOf } from './workbook';
import { unzipped } from './zip';

const LIMITS = {
  bytes: 24_000_000,
  files: 2000,
  flood: 'This spreadsheet unpacks to far more than we take. Save its table alone, as CSV.',
};
/** No inventory sheet is larger. */
const SHEET_SIZE = { rows: 5000, columns: 100 };

/** What a spreadsheet file holds: the names of its sheets, and the cells of one of them as text. */
export interface ReadSpreadsheet {
  sheets: string[];
  cells: string[][];
}

/**
 * The cells of one sheet of a spreadsheet file (XLSX or ODS), as they are shown: codes keep their leading zeros, and a
 * fault or a formula without a value is seen as one.
 * @param sheet index, from 0
 * @param most rows and columns that make sense
 * @throws Problem when it is no spreadsheet, has no such sheet, or unpacks to more than a sheet can be
 */
export async function readSpreadsheet(
  bytes: Uint8Array,
  sheet = 0,
  most = SHEET_SIZE,
): Promise<ReadSpreadsheet> {
  const files = await unpacked(bytes);
  const textOf = (path: string) => {
    const content = files.get(path);
    return content ? new TextDecoder().decode(content) : null;
  };
  // Further off than what is too large to make sense, and is said to be so by its size.
  const bounds = { rows: 4 * most.rows, columns: 3 * most.columns };
  let names: string[];
  let rows: string[][];
  try {
    const content = textOf('content.xml');
    const book = content === null ? workbookOf(textOf) : null;
    const written = book ? [] : openDocumentSheets(content!);
    names = (book?.sheets ?? written).map(({ name }) => name);
    if (sheet >= names.length)
      throw unreadable(`This spreadsheet has ${counted(names.length, 'sheet')}, and no number ${sheet + 1}.`);
    rows = book
      ? cellsOf(textOf(book.sheets[sheet]!.path)!, book, bounds)
      : openDocumentCells(content!, written[sheet]!.at, bounds);
  } catch (error) {
    throw error instanceof Problem ? error : noSpreadsheet();
  }
  const width = rows.reduce((most, row) => Math.max(most, row.length), 0);
  if (rows.length > most.rows || width > most.columns) {
    throw unreadable(
      `This sheet has ${counted(rows.length, 'row')} and ${counted(width, 'column')}; at most ${many(most.rows)} and ${many(most.columns)}.`,
    );
  }
  return {
    sheets: names,
    cells: rows.map((row) => Array.from({ length: width }, (_, c) => row[c] ?? '')),
  };
}

function noSpreadsheet(): Problem {
  return unreadable(
    'This file is not a spreadsheet that we can read. Save it as XLSX, ODS or CSV and try again.',
  );
}

/** Its parts that hold text; pictures and the like are passed over. */
async function unpacked(bytes: Uint8Array): Promise<ReadonlyMap<string, Uint8Array>> {
  try {
    return await unzipped(bytes, (name) => /^(xl\/.*\.(xml|rels)|content\.xml)$/.test(name), LIMITS);
  } catch (error) {
    throw error instanceof Problem && error.detail === LIMITS.flood ? error : noSpreadsheet();
  }
}

/** A table to be written as a spreadsheet. */
export interface SpreadsheetTable {
  /** Name of the sheet. */
  name: string;
  header: readonly string[];
  rows: readonly (string | number)[][];
}

/** Writes one sheet. Text stays text, so that codes keep their leading zeros; numbers stay numbers. */
export async function writeSpreadsheet({ name, header, rows }: SpreadsheetTable): Promise<Uint8Array> {
  const head = header.map((value) => ({ value, type: String, fontWeight: 'bold' as const }));
  const cells = rows.map((row) =>
    row.map((value) =>
      typeof value === 'number' ? { value, type: Number } : value === '' ? null : { value, type: String },
    ),
  );
  const file = writeExcelFile([head, ...cells], {
    // Signs that a sheet's name cannot hold, and its greatest length.
    sheet: name.replace(/[*?:/\\[\]]/g, ' ').slice(0, 31),
    stickyRowsCount: 1,
    columns: header.map((words) => ({ width: Math.max(10, words.length + 2) })),
  });
  return new Uint8Array(await file.toBuffer());
}
