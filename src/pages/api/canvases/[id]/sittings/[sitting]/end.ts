import { sittingEndSchema } from '../../../../../../server/bench/contract';
import { benchView } from '../../../../../../server/bench/view';
import { stopSitting } from '../../../../../../server/bench/writes';
import { readJson } from '../../../../../../server/http/body';
import { canvasEndpoint, isUuid, json, screenOf } from '../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../server/http/problem';

export const POST = canvasEndpoint(async (database, canvas, { request, params }) => {
  const { note, endedAt } = await readJson(request, sittingEndSchema);
  if (!isUuid(params.sitting)) throw notFound('such sitting');
  await stopSitting(database, canvas, params.sitting, note, endedAt);
  return json(await database.snapshot((queries) => benchView(queries, canvas, screenOf(request))), 201);
});
