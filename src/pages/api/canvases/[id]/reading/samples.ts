import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../../server/http/endpoint';
import { readingSamplesSchema } from '../../../../../server/reading/contract';
import { readingView } from '../../../../../server/reading/view';
import { keepSamples } from '../../../../../server/reading/writes';

/** Keeps how colours look in print, for photos to be compared with. */
export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  await keepSamples(database, canvas, await readJson(request, readingSamplesSchema));
  return json(await readingView(database, canvas, screenOf(request)));
});
