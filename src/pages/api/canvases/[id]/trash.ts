import { addTrashRecord } from '../../../../data/checkin';
import { trashSchema } from '../../../../server/checkin/contract';
import { checkinView } from '../../../../server/checkin/view';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await addTrashRecord(database, canvas.id, await readJson(request, trashSchema), new Date().toISOString());
  return json(await checkinView(database, canvas));
});
