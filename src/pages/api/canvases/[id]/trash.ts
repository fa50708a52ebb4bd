import { trashSchema } from '../../../../server/checkin/contract';
import { checkinView } from '../../../../server/checkin/view';
import { recordTrash } from '../../../../server/checkin/writes';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../server/http/endpoint';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await recordTrash(database, canvas, await readJson(request, trashSchema));
  return json(await database.snapshot((queries) => checkinView(queries, canvas, screenOf(request))), 201);
});
