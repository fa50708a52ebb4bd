import { readingPhotoBytes } from '../../../../../../../data/reading';
import { canvasEndpoint, content, isUuid } from '../../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../../server/http/problem';

/** The photo as it came, upright. */
export const GET = canvasEndpoint(async (database, canvas, { params }) => {
  const bytes = isUuid(params.photo) ? await readingPhotoBytes(database, canvas.id, params.photo) : null;
  if (!bytes) throw notFound('photo');
  return content(bytes, 'image/jpeg');
});
