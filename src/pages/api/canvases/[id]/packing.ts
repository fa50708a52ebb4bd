import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { packingQuery } from '../../../../server/packing/contract';
import { packingFor } from '../../../../server/packing/view';

export const GET = canvasEndpoint(async (database, canvas, { url }) =>
  json(await packingFor(database, canvas, await readQuery(url, packingQuery))),
);
