import { addSitting } from '../../../../../data/bench';
import { sittingSchema } from '../../../../../server/bench/contract';
import { benchView } from '../../../../../server/bench/view';
import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../../server/http/endpoint';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const { id } = await readJson(request, sittingSchema);
  await addSitting(database, canvas.id, id, new Date().toISOString());
  return json(await benchView(database, canvas));
});
