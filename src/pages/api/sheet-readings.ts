import { MAX_SHEET_CHARACTERS } from '../../core/checkin/sheetTable';
import { isSpreadsheet } from '../../core/words/spreadsheetTypes';
import { sheetReadingQuery } from '../../server/checkin/contract';
import { mediaType, readBody, readQuery } from '../../server/http/body';
import { endpoint, json } from '../../server/http/endpoint';
import { Problem } from '../../server/http/problem';
import { inWorker } from '../../server/jobs/pool';

const TEXT_TYPES = ['text/csv', 'text/tab-separated-values', 'text/plain'];

/** Reads a sheet, as text or as a spreadsheet file, and tells what it understood; saves nothing. */
export const POST = endpoint(async (_database, { request, url }) => {
  const { type, charset } = mediaType(request);
  if (!isSpreadsheet(type) && !TEXT_TYPES.includes(type)) {
    throw new Problem(
      415,
      'Unknown kind of file',
      'An inventory sheet comes as CSV, TSV, plain text, XLSX or ODS.',
    );
  }
  const bytes = await readBody(request, MAX_SHEET_CHARACTERS * 4);
  const { sheet, header, delimiter } = await readQuery(url, sheetReadingQuery);
  const options = { sheet, headerLine: header, delimiter };
  return json(await inWorker('readSheetFile', { bytes, type, charset, options }));
});
