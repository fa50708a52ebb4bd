import { bringBackCanvas, emptyDeleted } from '../../../../data/canvas';
import { endpoint, isUuid, json } from '../../../../server/http/endpoint';
import { notFound } from '../../../../server/http/problem';
import { shelfEntry } from '../../../../server/shelf/view';

/** Brings a deleted canvas back. */
export const POST = endpoint(async (database, { params }) => {
  const { id } = params;
  if (!isUuid(id) || !(await database.transaction((queries) => bringBackCanvas(queries, id))))
    throw notFound('deleted canvas');
  return json(await shelfEntry(database, id));
});

/** Deletes it for good. */
export const DELETE = endpoint(async (database, { params }) => {
  const { id } = params;
  if (!isUuid(id) || (await emptyDeleted(database, { before: new Date(0).toISOString(), id })) === 0)
    throw notFound('deleted canvas');
  return new Response(null, { status: 204 });
});
