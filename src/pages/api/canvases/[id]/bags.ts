import { revisionOf } from '../../../../data/once';
import { bagSchema } from '../../../../server/checkin/contract';
import { bagAnswer, checkinView, linesOfBag } from '../../../../server/checkin/view';
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
  const screen = screenOf(request);
  await enterBag(database, canvas, bag, screen);
  const lines = [bag.line];
  for (const id of [bag.id, bag.undoes, bag.redoes, bag.changes, bag.removes, bag.assigns]) {
    if (id !== null) lines.push(...(await linesOfBag(database, canvas.id, id)));
  }
  return json(await bagAnswer(database, canvas, lines, screen), 201);
});
