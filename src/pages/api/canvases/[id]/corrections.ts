import { correctionUndoSchema } from '../../../../server/corrections/contract';
import { correctionsView } from '../../../../server/corrections/view';
import { undoCorrection } from '../../../../server/corrections/writes';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas, { request }) =>
  json(await database.snapshot((queries) => correctionsView(queries, canvas, screenOf(request)))),
);

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const wish = await readJson(request, correctionUndoSchema);
  const screen = screenOf(request);
  await undoCorrection(database, canvas, wish, screen);
  return json(await database.snapshot((queries) => correctionsView(queries, canvas, screen)), 201);
});
