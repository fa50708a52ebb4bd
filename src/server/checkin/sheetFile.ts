import { readSheetLines } from '../../core/checkin/sheetLines';
import { readSheetTable, tableOfCells } from '../../core/checkin/sheetTable';
import { readText } from '../../core/words/text';
import { readSpreadsheet, XLSX_TYPE } from '../files/spreadsheet';

/** An inventory sheet as a file, and what its media type says of it. */
export interface SheetFile {
  bytes: Uint8Array;
  type: string;
  charset: string | null;
}

/** What a sheet was understood as, with its table for another choice of columns. @throws Refusal */
export async function readSheetFile({ bytes, type, charset }: SheetFile) {
  const table =
    type === XLSX_TYPE
      ? tableOfCells(await readSpreadsheet(bytes))
      : readSheetTable(readText(bytes, charset));
  return { ...table, ...readSheetLines(table.rows, table.mapping) };
}
