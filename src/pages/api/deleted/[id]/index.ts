import { bringBack, emptyDeleted } from '../../../../data/deleted';
import { endpoint, isUuid, json } from '../../../../server/http/endpoint';
import { notFound } from '../../../../server/http/problem';

/** Brings back what was deleted. */
export const POST = endpoint(async (database, { params }) => {
  const { id } = params;
  const kind = isUuid(id) ? await database.transaction((queries) => bringBack(queries, id)) : null;
  if (!kind) throw notFound('deleted thing');
  return json({ id, kind });
});

/** Deletes it for good. */
export const DELETE = endpoint(async (database, { params }) => {
  const { id } = params;
  if (!isUuid(id) || (await emptyDeleted(database, { before: new Date(0).toISOString(), id })) === 0)
    throw notFound('deleted thing');
  return new Response(null, { status: 204 });
});
