import { readSheet } from 'read-excel-file/node';
import writeExcelFile from 'write-excel-file/node';
import { many } from '../../core/words/numbers';
import { Problem, unreadable } from '../http/problem';
import { unzipped } from './zip';

export const XLSX_TYPE = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

const LIMITS = {
  bytes: 40_000_000,
  files: 2000,
  flood: 'This spreadsheet unpacks to far more than an inventory sheet can be.',
};
const MAX_ROWS = 5000;
const MAX_COLUMNS = 100;

/**
 * The cells of a spreadsheet file's first sheet, as text.
 * @throws Problem when it is no spreadsheet, or unpacks to more than a sheet can be
 */
export async function readSpreadsheet(bytes: Uint8Array): Promise<string[][]> {
  await refuseFlood(bytes);
  let rows: unknown[][];
  try {
    rows = await readSheet(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), 1);
  } catch {
    throw noSpreadsheet();
  }
  const width = rows.reduce((most, row) => Math.max(most, row.length), 0);
  if (rows.length > MAX_ROWS || width > MAX_COLUMNS) {
    throw unreadable(
      `The first sheet has ${many(rows.length)} rows and ${many(width)} columns; an inventory sheet has far fewer.`,
    );
  }
  return rows.map((row) => Array.from({ length: width }, (_, c) => asText(row[c])));
}

function asText(value: unknown): string {
  if (value === null || value === undefined) return '';
  return (value instanceof Date ? value.toISOString().slice(0, 10) : String(value)).trim();
}

function noSpreadsheet(): Problem {
  return unreadable('This file is not a spreadsheet that we can read. Save it as XLSX or CSV and try again.');
}

/** Unpacks it piece by piece and keeps nothing, so that the reader gets only what is as small as it says. */
async function refuseFlood(bytes: Uint8Array): Promise<void> {
  try {
    await unzipped(bytes, () => false, LIMITS);
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
