import { connection } from '../../data/engine/connection';
import { restoreEverything } from '../../server/backups/restore';
import { MAX_REQUEST_BYTES, readBody } from '../../server/http/body';
import { endpoint, json } from '../../server/http/endpoint';
import { asJob } from '../../server/jobs/jobs';

/** Takes everything in from a file that is sent along. */
export const POST = endpoint(async (_database, { request }) => {
  const database = await connection();
  const bytes = await readBody(request, MAX_REQUEST_BYTES);
  return json(await asJob(request, (job) => restoreEverything(database, { bytes }, job)), 201);
});
