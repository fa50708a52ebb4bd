import { archiveQuery } from '../../server/archive/contract';
import { restoreArchive } from '../../server/archive/restore';
import { MAX_REQUEST_BYTES, readBody, readQuery } from '../../server/http/body';
import { endpoint, json } from '../../server/http/endpoint';
import { asJob } from '../../server/jobs/jobs';

/** Puts an archived canvas on the shelf. */
export const POST = endpoint(async (database, { request, url }) => {
  const { copy } = await readQuery(url, archiveQuery);
  const bytes = await readBody(request, MAX_REQUEST_BYTES);
  return json(await asJob(request, (job) => restoreArchive(database, bytes, copy ?? null, job)), 201);
});
