import { revisionOf } from '../../../../data/once';
import { bagSchema } from '../../../../server/checkin/contract';
import { checkinView } from '../../../../server/checkin/view';
import { enterBag } from '../../../../server/checkin/writes';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json, screenOf, unchanged } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas, { request }) => {
  const screen = screenOf(request);
  const tag = `${await revisionOf(database, canvas.id)} ${screen ?? ''}`.trim();
  return (
    unchanged(request, tag) ??
    json(await database.snapshot((queries) => checkinView(queries, canvas, screen)), 200, tag)
  );
});

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const bag = await readJson(request, bagSchema);
  return json(await enterBag(database, canvas, bag, screenOf(request)), 201);
});
