import { putInFront } from '../../../../data/inFront';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { inFrontSchema } from '../../../../server/sections/contract';

/** Not a ledger, and no change of the canvas: the last one holds, whoever said it. */
export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const front = await readJson(request, inFrontSchema);
  await putInFront(database, canvas.id, front, new Date().toISOString());
  return json(front);
});
