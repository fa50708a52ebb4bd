import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../../server/http/endpoint';
import { ranOutSchema } from '../../../../../server/requests/contract';
import { noteRanOut } from '../../../../../server/requests/writes';

export const POST = canvasEndpoint(async (database, canvas, { request }) =>
  json(await noteRanOut(database, canvas, await readJson(request, ranOutSchema)), 201),
);
