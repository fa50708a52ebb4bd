import { straightPictureOf } from '../../../../../../../data/reading';
import { canvasEndpoint, content, isUuid } from '../../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../../server/http/problem';

/** The squares of a photo that was read, as a plain grid of 24 pixels each. */
export const GET = canvasEndpoint(async (database, canvas, { params }) => {
  const bytes = isUuid(params.photo) ? await straightPictureOf(database, canvas.id, params.photo) : null;
  if (!bytes) throw notFound('picture of squares');
  return content(bytes, 'image/jpeg');
});
