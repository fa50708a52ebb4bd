import { addTrashRecord } from '../../../../data/checkin';
import { checkinView } from '../../../../server/checkin';
import { trashSchema } from '../../../../server/contract/checkin';
import { canvasEndpoint, json, readJson } from '../../../../server/endpoint';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await addTrashRecord(database, canvas.id, await readJson(request, trashSchema), new Date().toISOString());
  return json(await checkinView(database, canvas));
});
