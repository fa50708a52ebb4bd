import { MAX_PHOTO_BYTES } from '../../../../../../core/inspection/photo';
import { inspectionPhoto, putInspectionPhoto } from '../../../../../../data/inspection';
import { readBody } from '../../../../../../server/http/body';
import { canvasEndpoint, content, isUuid, json } from '../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../server/http/problem';
import { inspectionView } from '../../../../../../server/inspection/view';
import { asJob } from '../../../../../../server/jobs/jobs';
import { inWorker } from '../../../../../../server/jobs/pool';

export const GET = canvasEndpoint(async (database, canvas, { params }) => {
  const photo = isUuid(params.entry) ? await inspectionPhoto(database, canvas.id, params.entry) : null;
  if (!photo) throw notFound('photo');
  return content(photo, 'image/jpeg');
});

export const PUT = canvasEndpoint(async (database, canvas, { params, request }) => {
  const bytes = await readBody(request, MAX_PHOTO_BYTES);
  const jpeg = await asJob(request, (job) => inWorker('photoToJpeg', { bytes }, job));
  if (!isUuid(params.entry) || !(await putInspectionPhoto(database, canvas.id, params.entry, jpeg))) {
    throw notFound('such entry');
  }
  return json(await database.snapshot((queries) => inspectionView(queries, canvas)));
});
