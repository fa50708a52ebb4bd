import { MAX_REQUEST_BYTES, readBody, readQuery } from '../../../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../../../server/http/endpoint';
import { asJob } from '../../../../../../server/jobs/jobs';
import { readingPhotoQuery } from '../../../../../../server/reading/contract';
import { readingView } from '../../../../../../server/reading/view';
import { addPhoto } from '../../../../../../server/reading/writes';

/** Takes a photo in, to be read. The same request again changes nothing. */
export const POST = canvasEndpoint(async (database, canvas, { request, url }) => {
  const wish = await readQuery(url, readingPhotoQuery);
  const bytes = await readBody(request, MAX_REQUEST_BYTES);
  await asJob(request, (job) => addPhoto(database, canvas, wish, bytes, job));
  return json(await readingView(database, canvas, screenOf(request)), 201);
});
