import { tableToCsv } from '../../../../core/checkin/sheetCsv';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { sittingsTable } from '../../../../server/progress/out';
import { everySitting } from '../../../../server/progress/view';

export const GET = canvasEndpoint(async (database, canvas) =>
  content(
    tableToCsv(sittingsTable(await everySitting(database, canvas))),
    'text/csv; charset=utf-8',
    `${canvas.title} sittings.csv`,
  ),
);
