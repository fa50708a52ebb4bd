import { repairView, replaceFinish, undoFinish } from '../../../../server/chartEdit';
import { finishSchema, undoFinishSchema } from '../../../../server/contract/chart';
import { canvasEndpoint, json, readJson } from '../../../../server/endpoint';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await replaceFinish(database, canvas, await readJson(request, finishSchema));
  return json(await repairView(database, canvas), 201);
});

/** Takes the last change back. */
export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  await undoFinish(database, canvas, await readJson(request, undoFinishSchema));
  return json(await repairView(database, canvas));
});
