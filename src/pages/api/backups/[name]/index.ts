import { connection } from '../../../../data/engine/connection';
import { backupBytes, backupsView, deleteBackup } from '../../../../server/backups/backups';
import { content, endpoint, json } from '../../../../server/http/endpoint';

export const GET = endpoint(async (_database, { params }) =>
  content(await backupBytes(await connection(), params.name), 'application/zip', `oculent ${params.name}`),
);

export const DELETE = endpoint(async (_database, { params }) => {
  const database = await connection();
  await deleteBackup(database, params.name);
  return json(await backupsView(database));
});
