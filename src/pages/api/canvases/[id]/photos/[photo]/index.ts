import { changePhoto, photosOf } from '../../../../../../data/photos';
import { readJson } from '../../../../../../server/http/body';
import { canvasEndpoint, isUuid, json } from '../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../server/http/problem';
import { photoSchema } from '../../../../../../server/progress/contract';

/** Corrects a photo's day and note, removes it or brings it back. */
export const PUT = canvasEndpoint(async (database, canvas, { request, params }) => {
  const wish = await readJson(request, photoSchema);
  const changed =
    isUuid(params.photo) &&
    (await database.transaction((queries) =>
      changePhoto(queries, canvas.id, params.photo!, wish, new Date().toISOString()),
    ));
  if (!changed) throw notFound('such photo');
  return json(await photosOf(database, canvas.id));
});
