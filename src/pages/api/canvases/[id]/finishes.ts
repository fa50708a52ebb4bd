import { finishSchema, undoFinishSchema } from '../../../../server/chart/contract';
import { repairView, replaceFinish, undoFinish } from '../../../../server/chart/edits';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await replaceFinish(database, canvas, await readJson(request, finishSchema));
  return json(await repairView(database, canvas), 201);
});

/** Takes the last change back. */
export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  await undoFinish(database, canvas, await readJson(request, undoFinishSchema));
  return json(await repairView(database, canvas));
});
