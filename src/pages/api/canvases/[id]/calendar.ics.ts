import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { progressQuery } from '../../../../server/progress/contract';
import { forecastView } from '../../../../server/progress/forecast';
import { calendarOf } from '../../../../server/progress/out';

/** Planned sittings and the end, for a calendar. */
export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { zone, maker } = await readQuery(url, progressQuery);
  const view = await forecastView(database, canvas, zone, maker);
  return content(calendarOf(canvas, view), 'text/calendar; charset=utf-8', `${canvas.title}.ics`);
});
