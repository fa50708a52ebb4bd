import { canvasEndpoint, json, screenOf } from '../../../../server/http/endpoint';
import { sectionsPage } from '../../../../server/sections/view';

export const GET = canvasEndpoint(async (database, canvas, { request }) =>
  json(await database.snapshot((queries) => sectionsPage(queries, canvas, screenOf(request)))),
);
