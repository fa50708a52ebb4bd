import ExcelJS from 'exceljs';
import { unzipSync } from 'fflate';
import { unreadable } from '../http/problem';

export const XLSX_TYPE = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

const MAX_UNPACKED_BYTES = 40_000_000;
const MAX_ROWS = 5000;
const MAX_COLUMNS = 100;

/**
 * The cells of a spreadsheet file's first sheet, as text.
 * @throws Problem when it is no spreadsheet, or unpacks to more than a sheet can be
 */
export async function readSpreadsheet(bytes: Uint8Array): Promise<string[][]> {
  refuseBomb(bytes);
  const workbook = new ExcelJS.Workbook();
  try {
    await workbook.xlsx.load(Uint8Array.from(bytes).buffer);
  } catch {
    throw unreadable(
      'This file is not a spreadsheet that we can read. Save it as XLSX or CSV and try again.',
    );
  }
  const sheet = workbook.worksheets[0];
  if (!sheet) throw unreadable('The spreadsheet has no sheet in it.');
  if (sheet.rowCount > MAX_ROWS || sheet.columnCount > MAX_COLUMNS) {
    throw unreadable(
      `The first sheet has ${sheet.rowCount} rows and ${sheet.columnCount} columns; an inventory sheet has far fewer.`,
    );
  }
  const width = sheet.columnCount;
  return Array.from({ length: sheet.rowCount }, (_, r) =>
    Array.from({ length: width }, (_, c) =>
      sheet
        .getRow(r + 1)
        .getCell(c + 1)
        .text.trim(),
    ),
  );
}

/** Adds up what the archive says it unpacks to, before anything is unpacked. */
function refuseBomb(bytes: Uint8Array): void {
  let unpacked = 0;
  try {
    unzipSync(bytes, {
      filter: (file) => {
        unpacked += file.originalSize;
        return false;
      },
    });
  } catch {
    throw unreadable(
      'This file is not a spreadsheet that we can read. Save it as XLSX or CSV and try again.',
    );
  }
  if (unpacked > MAX_UNPACKED_BYTES) {
    throw unreadable('This spreadsheet unpacks to far more than an inventory sheet can be.');
  }
}

/** Writes one sheet. Text stays text, so that codes keep their leading zeros; numbers stay numbers. */
export async function writeSpreadsheet(
  name: string,
  header: readonly string[],
  rows: readonly (string | number)[][],
): Promise<Uint8Array> {
  const workbook = new ExcelJS.Workbook();
  workbook.creator = 'Oculent';
  // Signs that a sheet's name cannot hold, and its greatest length.
  const sheet = workbook.addWorksheet(name.replace(/[*?:/\\[\]]/g, ' ').slice(0, 31), {
    views: [{ state: 'frozen', ySplit: 1 }],
  });
  sheet.addRow([...header]).font = { bold: true };
  for (const row of rows) sheet.addRow([...row]);
  header.forEach((words, i) => {
    sheet.getColumn(i + 1).width = Math.max(10, words.length + 2);
  });
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}
