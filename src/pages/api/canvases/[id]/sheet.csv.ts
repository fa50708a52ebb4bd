import { sheetToCsv } from '../../../../core/checkin/sheetCsv';
import { legendOf } from '../../../../data/canvas';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) =>
  content(
    sheetToCsv(await legendOf(database, canvas.id)),
    'text/csv; charset=utf-8',
    `${canvas.title} sheet.csv`,
  ),
);
