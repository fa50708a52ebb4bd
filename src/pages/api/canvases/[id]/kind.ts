import { kindView } from '../../../../server/chart/view';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { notFound } from '../../../../server/http/problem';

/** What the canvas is like to work. */
export const GET = canvasEndpoint(async (database, canvas) => {
  const view = await kindView(database, canvas);
  if (!view) throw notFound('chart');
  return json(view);
});
