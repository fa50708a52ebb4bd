import { putNoCases } from '../../../../../data/kitup';
import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../../server/http/endpoint';
import { noCasesSchema } from '../../../../../server/kitup/contract';
import { kitupView } from '../../../../../server/kitup/view';

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const { none } = await readJson(request, noCasesSchema);
  await putNoCases(database, canvas.id, none);
  return json(await database.snapshot((queries) => kitupView(queries, canvas, screenOf(request))));
});
