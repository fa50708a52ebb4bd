import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../../server/http/endpoint';
import { potEventSchema } from '../../../../../server/kitup/contract';
import { kitupView } from '../../../../../server/kitup/view';
import { notePot } from '../../../../../server/kitup/writes';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const screen = screenOf(request);
  await notePot(database, canvas, await readJson(request, potEventSchema), screen);
  return json(await database.snapshot((queries) => kitupView(queries, canvas, screen)), 201);
});
