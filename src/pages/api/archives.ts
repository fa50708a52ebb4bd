import { archiveQuery } from '../../server/contract/archive';
import { endpoint, json, readBody, readQuery } from '../../server/endpoint';
import { restoreArchive } from '../../server/restore';

const MAX_ARCHIVE_BYTES = 100_000_000;

/** Puts an archived canvas on the shelf. */
export const POST = endpoint(async (database, { request, url }) => {
  const { copy } = await readQuery(url, archiveQuery);
  const bytes = await readBody(request, MAX_ARCHIVE_BYTES);
  return json(await restoreArchive(database, bytes, copy ?? null), 201);
});
