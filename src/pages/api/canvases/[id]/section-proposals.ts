import { USUAL_ORDER } from '../../../../core/sections/order';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { proposalSchema } from '../../../../server/sections/contract';
import { proposal } from '../../../../server/sections/view';

/** Saves nothing. */
export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const { hand, cover, order = USUAL_ORDER, ...cut } = await readJson(request, proposalSchema);
  const more = { ...(hand ? { hand } : {}), ...(cover ? { cover } : {}) };
  return json(await proposal(database, canvas, { ...cut, order }, more));
});
