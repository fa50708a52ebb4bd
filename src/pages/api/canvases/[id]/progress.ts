import { dayIn } from '../../../../core/words/calendar';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { progressQuery } from '../../../../server/progress/contract';
import { progressView } from '../../../../server/progress/view';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { zone, maker } = await readQuery(url, progressQuery);
  return json(await progressView(database, canvas, zone, dayIn(zone, new Date()), maker));
});
