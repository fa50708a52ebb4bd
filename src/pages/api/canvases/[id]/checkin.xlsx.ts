import { checkinTableOut } from '../../../../core/checkin/checkinTable';
import { legendOf } from '../../../../data/canvas';
import { checkinView } from '../../../../server/checkin/view';
import { XLSX_TYPE } from '../../../../server/files/spreadsheet';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { inWorker } from '../../../../server/jobs/pool';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { supply } = await database.snapshot((queries) => checkinView(queries, canvas));
  const { header, rows } = checkinTableOut(await legendOf(database, canvas.id), supply);
  return content(
    await inWorker('writeSpreadsheet', { name: canvas.title, header, rows }),
    XLSX_TYPE,
    `${canvas.title} check-in.xlsx`,
  );
});
