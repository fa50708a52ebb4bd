import { tableToCsv } from '../../../../core/checkin/sheetCsv';
import { packingQuery } from '../../../../server/contract/packing';
import { canvasEndpoint, content, readQuery } from '../../../../server/endpoint';
import { packingFor, packingTable } from '../../../../server/packing';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const list = await packingFor(database, canvas, await readQuery(url, packingQuery));
  return content(
    tableToCsv(packingTable(list)),
    'text/csv; charset=utf-8',
    `${canvas.title} packing list.csv`,
  );
});
