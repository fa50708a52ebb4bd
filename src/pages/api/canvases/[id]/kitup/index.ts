import { kitupSchema } from '../../../../../server/contract/kitup';
import { canvasEndpoint, json, readJson } from '../../../../../server/endpoint';
import { kitupView, planKitup } from '../../../../../server/kitup';

export const GET = canvasEndpoint(async (database, canvas) => json(await kitupView(database, canvas)));

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  await planKitup(database, canvas, await readJson(request, kitupSchema));
  return json(await kitupView(database, canvas));
});
