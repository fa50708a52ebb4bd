import { connection } from '../../data/engine/connection';
import { checkNow } from '../../server/backups/backups';
import { endpoint, json } from '../../server/http/endpoint';
import { asJob } from '../../server/jobs/jobs';

/** Checks all records as they are now; changes nothing. */
export const GET = endpoint(async (_database, { request }) => {
  const database = await connection();
  return json(await asJob(request, (job) => checkNow(database, job)));
});
