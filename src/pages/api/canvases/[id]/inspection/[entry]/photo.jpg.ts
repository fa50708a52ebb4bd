import { MAX_PHOTO_BYTES } from '../../../../../../core/inspection/photo';
import { inspectionPhoto, putInspectionPhoto } from '../../../../../../data/inspection';
import { photoToJpeg } from '../../../../../../server/files/pixels';
import { readBody } from '../../../../../../server/http/body';
import { canvasEndpoint, content, isUuid, json } from '../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../server/http/problem';
import { inspectionView } from '../../../../../../server/inspection/view';

export const GET = canvasEndpoint(async (database, canvas, { params }) => {
  const photo = isUuid(params.entry) ? await inspectionPhoto(database, canvas.id, params.entry) : null;
  if (!photo) throw notFound('photo');
  return content(photo, 'image/jpeg');
});

export const PUT = canvasEndpoint(async (database, canvas, { params, request }) => {
  const jpeg = await photoToJpeg(await readBody(request, MAX_PHOTO_BYTES));
  if (!isUuid(params.entry) || !(await putInspectionPhoto(database, canvas.id, params.entry, jpeg))) {
    throw notFound('such entry');
  }
  return json(await database.transaction((queries) => inspectionView(queries, canvas)));
});
