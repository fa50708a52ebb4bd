import { sittingSchema } from '../../../../../server/bench/contract';
import { benchView } from '../../../../../server/bench/view';
import { startSitting } from '../../../../../server/bench/writes';
import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../../server/http/endpoint';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const { id, ...times } = await readJson(request, sittingSchema);
  await startSitting(database, canvas, id, screenOf(request), times);
  return json(await database.snapshot((queries) => benchView(queries, canvas, screenOf(request))), 201);
});
