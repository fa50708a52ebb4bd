import { sittingSplitSchema } from '../../../../../../server/bench/contract';
import { partSitting } from '../../../../../../server/bench/writes';
import { readJson } from '../../../../../../server/http/body';
import { canvasEndpoint, isUuid, json, screenOf } from '../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../server/http/problem';
import { allSittings } from '../../../../../../server/progress/view';

/** Parts a sitting in two, with a pause between. */
export const POST = canvasEndpoint(async (database, canvas, { request, params }) => {
  const wish = await readJson(request, sittingSplitSchema);
  if (!isUuid(params.sitting)) throw notFound('such sitting');
  await partSitting(database, canvas, params.sitting, wish, screenOf(request));
  return json(await allSittings(database, canvas), 201);
});
