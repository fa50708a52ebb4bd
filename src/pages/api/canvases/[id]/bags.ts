import { checkinView, enterBag } from '../../../../server/checkin';
import { bagSchema } from '../../../../server/contract/checkin';
import { canvasEndpoint, json, readJson } from '../../../../server/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => json(await checkinView(database, canvas)));

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await enterBag(database, canvas, await readJson(request, bagSchema));
  return json(await checkinView(database, canvas));
});
