import { connection } from '../../../../data/engine/connection';
import { backupPath } from '../../../../server/backups/backups';
import { restoreEverything } from '../../../../server/backups/restore';
import { endpoint, json } from '../../../../server/http/endpoint';
import { asJob } from '../../../../server/jobs/jobs';

/** Takes everything in from a backup that lies here. */
export const POST = endpoint(async (_database, { params, request }) => {
  const database = await connection();
  const path = await backupPath(database, params.name);
  return json(await asJob(request, (job) => restoreEverything(database, { path }, job)), 201);
});
