import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../../server/http/endpoint';
import { kitupSchema } from '../../../../../server/kitup/contract';
import { kitupView } from '../../../../../server/kitup/view';
import { planKitup } from '../../../../../server/kitup/writes';

export const GET = canvasEndpoint(async (database, canvas, { request }) =>
  json(await database.snapshot((queries) => kitupView(queries, canvas, screenOf(request)))),
);

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  await planKitup(database, canvas, await readJson(request, kitupSchema));
  return json(await database.snapshot((queries) => kitupView(queries, canvas, screenOf(request))));
});
