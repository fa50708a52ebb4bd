import { checkinTableOut } from '../../../../core/checkin/checkinTable';
import { tableToCsv } from '../../../../core/checkin/sheetCsv';
import { legendOf } from '../../../../data/canvas';
import { checkinView } from '../../../../server/checkin/view';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { supply } = await database.snapshot((queries) => checkinView(queries, canvas));
  const table = checkinTableOut(await legendOf(database, canvas.id), supply);
  return content(tableToCsv(table), 'text/csv; charset=utf-8', `${canvas.title} check-in.csv`);
});
