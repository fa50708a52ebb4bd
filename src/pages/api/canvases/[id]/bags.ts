import { bagSchema } from '../../../../server/checkin/contract';
import { checkinView } from '../../../../server/checkin/view';
import { enterBag } from '../../../../server/checkin/writes';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => json(await checkinView(database, canvas)));

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await enterBag(database, canvas, await readJson(request, bagSchema));
  return json(await checkinView(database, canvas));
});
