import { packingQuery } from '../../../../server/contract/packing';
import { canvasEndpoint, json, readQuery } from '../../../../server/endpoint';
import { packingFor } from '../../../../server/packing';

export const GET = canvasEndpoint(async (database, canvas, { url }) =>
  json(await packingFor(database, canvas, await readQuery(url, packingQuery))),
);
