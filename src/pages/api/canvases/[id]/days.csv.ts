import { tableToCsv } from '../../../../core/checkin/sheetCsv';
import { dayIn } from '../../../../core/words/calendar';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { progressQuery } from '../../../../server/progress/contract';
import { daysTable } from '../../../../server/progress/out';
import { progressView } from '../../../../server/progress/view';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { zone, maker } = await readQuery(url, progressQuery);
  const view = await progressView(database, canvas, zone, dayIn(zone, new Date()), maker);
  return content(tableToCsv(daysTable(view)), 'text/csv; charset=utf-8', `${canvas.title} days.csv`);
});
