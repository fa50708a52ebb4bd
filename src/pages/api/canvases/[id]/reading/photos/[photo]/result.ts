import { readJson } from '../../../../../../../server/http/body';
import { canvasEndpoint, isUuid, json, screenOf } from '../../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../../server/http/problem';
import { readingResultSchema } from '../../../../../../../server/reading/contract';
import { readingView } from '../../../../../../../server/reading/view';
import { keepResult } from '../../../../../../../server/reading/writes';

/** Keeps what a photo was read as, in place of an earlier reading. */
export const PUT = canvasEndpoint(async (database, canvas, { request, params }) => {
  const wish = await readJson(request, readingResultSchema);
  if (!isUuid(params.photo)) throw notFound('such photo');
  await keepResult(database, canvas, params.photo, wish);
  return json(await readingView(database, canvas, screenOf(request)));
});
