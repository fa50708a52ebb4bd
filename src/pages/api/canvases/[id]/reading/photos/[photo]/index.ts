import { readingMesh, readingPhoto } from '../../../../../../../data/reading';
import { readJson } from '../../../../../../../server/http/body';
import { canvasEndpoint, isUuid, json, screenOf } from '../../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../../server/http/problem';
import { squaringSchema } from '../../../../../../../server/reading/contract';
import { photoOfRow, readingView } from '../../../../../../../server/reading/view';
import { squarePhoto } from '../../../../../../../server/reading/writes';

/** A photo and where its squares lie; `mesh` once it was read. */
export const GET = canvasEndpoint(async (database, canvas, { params }) => {
  const row = isUuid(params.photo) ? await readingPhoto(database, canvas.id, params.photo) : null;
  if (!row) throw notFound('such photo');
  return json({ ...photoOfRow(row, undefined), mesh: await readingMesh(database, canvas.id, row.id) });
});

/** Says some of where the squares of a photo lie, removes it or brings it back. */
export const PATCH = canvasEndpoint(async (database, canvas, { request, params }) => {
  const wish = await readJson(request, squaringSchema);
  if (!isUuid(params.photo)) throw notFound('such photo');
  await squarePhoto(database, canvas, params.photo, wish);
  return json(await readingView(database, canvas, screenOf(request)));
});
