import { panelPlanSchema } from '../../../../server/chart/contract';
import { panelsView, savePanels } from '../../../../server/chart/panels';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) =>
  json(await database.snapshot((queries) => panelsView(queries, canvas))),
);

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  await savePanels(database, canvas, await readJson(request, panelPlanSchema));
  return json(await database.snapshot((queries) => panelsView(queries, canvas)));
});
