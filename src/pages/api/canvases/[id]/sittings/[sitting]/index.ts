import { sittingCorrectionSchema } from '../../../../../../server/bench/contract';
import { correctSitting } from '../../../../../../server/bench/writes';
import { readJson } from '../../../../../../server/http/body';
import { canvasEndpoint, isUuid, json } from '../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../server/http/problem';
import { allSittings } from '../../../../../../server/progress/view';

/** Corrects a sitting, removes it or brings it back. */
export const PUT = canvasEndpoint(async (database, canvas, { request, params }) => {
  const wish = await readJson(request, sittingCorrectionSchema);
  if (!isUuid(params.sitting)) throw notFound('such sitting');
  await correctSitting(database, canvas, params.sitting, wish);
  return json(await allSittings(database, canvas));
});
