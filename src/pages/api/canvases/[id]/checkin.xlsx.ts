import { checkinTableOut } from '../../../../core/checkin/checkinTable';
import { SPREADSHEET_TYPES } from '../../../../core/words/spreadsheetTypes';
import { legendOf } from '../../../../data/canvas';
import { checkinView } from '../../../../server/checkin/view';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { inWorker } from '../../../../server/jobs/pool';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { supply } = await database.snapshot((queries) => checkinView(queries, canvas));
  const { header, rows } = checkinTableOut(await legendOf(database, canvas.id), supply);
  return content(
    await inWorker('writeSpreadsheet', { name: canvas.title, header, rows }),
    SPREADSHEET_TYPES.xlsx,
    `${canvas.title} check-in.xlsx`,
  );
});
