import { connection } from '../../../data/engine/connection';
import { backupsView, makeBackup } from '../../../server/backups/backups';
import { endpoint, json } from '../../../server/http/endpoint';
import { asJob } from '../../../server/jobs/jobs';

export const GET = endpoint(async () => json(await backupsView(await connection())));

/** Makes a backup by hand. */
export const POST = endpoint(async (_database, { request }) => {
  const database = await connection();
  await asJob(request, (job) => makeBackup(database, 'by hand', new Date(), job));
  return json(await backupsView(database), 201);
});
