import { readSheetLines } from '../../core/checkin/sheetLines';
import { MAX_SHEET_CHARACTERS, readSheetTable, tableOfCells } from '../../core/checkin/sheetTable';
import { endpoint, json, readBody } from '../../server/endpoint';
import { unreadable } from '../../server/problem';
import { readSpreadsheet, XLSX_TYPE } from '../../server/spreadsheet';

/** Reads a sheet, as text or as a spreadsheet file, and tells what it understood; saves nothing. */
export const POST = endpoint(async (_database, { request }) => {
  const bytes = await readBody(request, MAX_SHEET_CHARACTERS * 4);
  try {
    const table =
      request.headers.get('content-type') === XLSX_TYPE
        ? tableOfCells(await readSpreadsheet(bytes))
        : readSheetTable(new TextDecoder().decode(bytes));
    return json({ ...table, ...readSheetLines(table.rows, table.mapping) });
  } catch (error) {
    if (error instanceof RangeError) throw unreadable(error.message);
    throw error;
  }
});
