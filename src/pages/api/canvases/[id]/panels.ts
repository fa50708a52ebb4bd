import { panelPlanSchema } from '../../../../server/contract/panels';
import { canvasEndpoint, json, readJson } from '../../../../server/endpoint';
import { panelsView, savePanels } from '../../../../server/panels';

export const GET = canvasEndpoint(async (database, canvas) => json(await panelsView(database, canvas)));

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  await savePanels(database, canvas, await readJson(request, panelPlanSchema));
  return json(await panelsView(database, canvas));
});
