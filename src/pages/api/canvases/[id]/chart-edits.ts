import { chartEditSchema } from '../../../../server/chart/contract';
import { editChart, repairView } from '../../../../server/chart/edits';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => json(await repairView(database, canvas)));

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await editChart(database, canvas, await readJson(request, chartEditSchema));
  return json(await repairView(database, canvas), 201);
});
