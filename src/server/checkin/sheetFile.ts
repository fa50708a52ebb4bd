import { readSheetLines } from '../../core/checkin/sheetLines';
import {
  readSheetTable,
  type SheetTable,
  type TableOptions,
  tableOfCells,
  unusedColumns,
} from '../../core/checkin/sheetTable';
import { isSpreadsheet } from '../../core/words/spreadsheetTypes';
import { readText } from '../../core/words/text';
import { readSpreadsheet } from '../files/spreadsheet';

/** An inventory sheet as a file, what its media type says of it, and what the reader says. */
export interface SheetFile {
  bytes: Uint8Array;
  type: string;
  charset: string | null;
  options: TableOptions & { sheet?: number };
}

/** What a sheet was understood as, with its table for another choice of columns. @throws Refusal */
export async function readSheetFile({ bytes, type, charset, options }: SheetFile) {
  if (!isSpreadsheet(type)) {
    const table = readSheetTable(readText(bytes, charset), options);
    return { sheets: [], ...answerOf(table) };
  }
  const { sheets, cells } = await readSpreadsheet(bytes, options.sheet);
  return { sheets, ...answerOf(tableOfCells(cells, options)) };
}

function answerOf(table: SheetTable) {
  const { lines, faults, notices } = readSheetLines(table.rows, table.mapping);
  const unused = unusedColumns(table, table.mapping);
  return { ...table, lines, faults, notices: [...table.notices, ...notices], unused };
}
