import { addSitting } from '../../../../../data/bench';
import { benchView } from '../../../../../server/bench';
import { sittingSchema } from '../../../../../server/contract/bench';
import { canvasEndpoint, json, readJson } from '../../../../../server/endpoint';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const { id } = await readJson(request, sittingSchema);
  await addSitting(database, canvas.id, id, new Date().toISOString());
  return json(await benchView(database, canvas));
});
