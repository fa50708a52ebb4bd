import { MAX_PHOTO_BYTES } from '../../../../../core/inspection/photo';
import { addPhoto, photosOf } from '../../../../../data/photos';
import { readBody, readQuery } from '../../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../../server/http/endpoint';
import { once } from '../../../../../server/http/once';
import { asJob } from '../../../../../server/jobs/jobs';
import { inWorker } from '../../../../../server/jobs/pool';
import { photoQuery } from '../../../../../server/progress/contract';

/** Photos of the work, the newest first. */
export const GET = canvasEndpoint(async (database, canvas) => json(await photosOf(database, canvas.id)));

/** Takes a photo in; what it is said to show, and its day, stand in the address. The same request again changes nothing. */
export const POST = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { id, takenOn, note } = await readQuery(url, photoQuery);
  const bytes = await readBody(request, MAX_PHOTO_BYTES);
  const jpeg = await asJob(request, (job) => inWorker('photoToJpeg', { bytes }, job));
  const named = {
    id,
    what: 'photo',
    canvasId: canvas.id,
    content: { takenOn, note, bytes: bytes.byteLength },
  };
  await once(database, named, (queries) =>
    addPhoto(queries, canvas.id, { id, takenOn, note, photo: jpeg }, new Date().toISOString()),
  );
  return json(await photosOf(database, canvas.id), 201);
});
