import { chartEditSchema } from '../../../../server/chart/contract';
import { editChart, repairView } from '../../../../server/chart/edits';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas, { request }) =>
  json(await database.snapshot((queries) => repairView(queries, canvas, screenOf(request)))),
);

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const screen = screenOf(request);
  await editChart(database, canvas, await readJson(request, chartEditSchema), screen);
  return json(await database.snapshot((queries) => repairView(queries, canvas, screen)), 201);
});
