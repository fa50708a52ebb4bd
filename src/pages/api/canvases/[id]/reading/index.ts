import { canvasEndpoint, json, screenOf } from '../../../../../server/http/endpoint';
import { readingView } from '../../../../../server/reading/view';

/** Photos to read from, what was read of them, samples of the colours, and what was said of squares in doubt. */
export const GET = canvasEndpoint(async (database, canvas, { request }) =>
  json(await database.snapshot((queries) => readingView(queries, canvas, screenOf(request)))),
);
