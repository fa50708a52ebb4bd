import { tableToCsv } from '../../../../core/checkin/sheetCsv';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { packingQuery } from '../../../../server/packing/contract';
import { packingFor, packingTable } from '../../../../server/packing/view';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const list = await packingFor(database, canvas, await readQuery(url, packingQuery));
  return content(
    tableToCsv(packingTable(list)),
    'text/csv; charset=utf-8',
    `${canvas.title} packing list.csv`,
  );
});
