import { editChart, repairView } from '../../../../server/chartEdit';
import { chartEditSchema } from '../../../../server/contract/chart';
import { canvasEndpoint, json, readJson } from '../../../../server/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => json(await repairView(database, canvas)));

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await editChart(database, canvas, await readJson(request, chartEditSchema));
  return json(await repairView(database, canvas), 201);
});
