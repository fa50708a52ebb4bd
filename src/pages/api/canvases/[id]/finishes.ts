import { repairView, replaceFinish } from '../../../../server/chartEdit';
import { finishSchema } from '../../../../server/contract/chart';
import { canvasEndpoint, json, readJson } from '../../../../server/endpoint';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await replaceFinish(database, canvas, await readJson(request, finishSchema));
  return json(await repairView(database, canvas), 201);
});
