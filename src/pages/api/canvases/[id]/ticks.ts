import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { tickSchema } from '../../../../server/sections/contract';
import { tickColour, ticksView } from '../../../../server/sections/ticks';

export const GET = canvasEndpoint(async (database, canvas) =>
  json(await database.snapshot((queries) => ticksView(queries, canvas))),
);

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await tickColour(database, canvas, await readJson(request, tickSchema));
  return json(await database.snapshot((queries) => ticksView(queries, canvas)), 201);
});
