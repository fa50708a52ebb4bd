import { inspectionPhoto, putInspectionPhoto } from '../../../../../../data/inspection';
import { canvasEndpoint, content, isUuid, json, readBody } from '../../../../../../server/endpoint';
import { inspectionView } from '../../../../../../server/inspection';
import { photoToJpeg } from '../../../../../../server/pixels';
import { notFound } from '../../../../../../server/problem';

const MAX_PHOTO_BYTES = 15_000_000;

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
  return json(await inspectionView(database, canvas));
});
