import { potEventSchema } from '../../../../../server/contract/kitup';
import { canvasEndpoint, json, readJson } from '../../../../../server/endpoint';
import { kitupView, notePot } from '../../../../../server/kitup';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await notePot(database, canvas, await readJson(request, potEventSchema));
  return json(await kitupView(database, canvas), 201);
});
