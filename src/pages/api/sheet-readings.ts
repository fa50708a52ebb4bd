import { readSheetLines } from '../../core/checkin/sheetLines';
import { MAX_SHEET_CHARACTERS, readSheetTable } from '../../core/checkin/sheetTable';
import { endpoint, json, readBody } from '../../server/endpoint';
import { unreadable } from '../../server/problem';

/** Reads a sheet and tells what it understood; saves nothing. */
export const POST = endpoint(async (_database, { request }) => {
  const text = new TextDecoder().decode(await readBody(request, MAX_SHEET_CHARACTERS * 4));
  try {
    const { columns, hasHeader, rows, mapping } = readSheetTable(text);
    return json({ columns, hasHeader, mapping, ...readSheetLines(rows, mapping) });
  } catch (error) {
    if (error instanceof RangeError) throw unreadable(error.message);
    throw error;
  }
});
