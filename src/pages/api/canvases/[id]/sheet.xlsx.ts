import { sheetTableOut } from '../../../../core/checkin/checkinTable';
import { SPREADSHEET_TYPES } from '../../../../core/words/spreadsheetTypes';
import { legendOf } from '../../../../data/canvas';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { inWorker } from '../../../../server/jobs/pool';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { header, rows } = sheetTableOut(await legendOf(database, canvas.id));
  return content(
    await inWorker('writeSpreadsheet', { name: canvas.title, header, rows }),
    SPREADSHEET_TYPES.xlsx,
    `${canvas.title} sheet.xlsx`,
  );
});
