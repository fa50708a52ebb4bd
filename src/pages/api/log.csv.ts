import { tableToCsv } from '../../core/checkin/sheetCsv';
import { logTable } from '../../server/finish/out';
import { logOfAll } from '../../server/finish/view';
import { readQuery } from '../../server/http/body';
import { content, endpoint } from '../../server/http/endpoint';
import { progressQuery } from '../../server/progress/contract';

/** The log of all canvases that were begun. */
export const GET = endpoint(async (database, { url }) => {
  const { zone } = await readQuery(url, progressQuery);
  const log = await database.snapshot((queries) => logOfAll(queries, zone));
  return content(tableToCsv(logTable(log)), 'text/csv; charset=utf-8', 'log.csv');
});
