import { photoOf } from '../../../../../../data/photos';
import { canvasEndpoint, content, isUuid } from '../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../server/http/problem';

export const GET = canvasEndpoint(async (database, canvas, { params }) => {
  const photo = isUuid(params.photo) ? await photoOf(database, canvas.id, params.photo) : null;
  if (!photo) throw notFound('photo');
  return content(photo, 'image/jpeg');
});
