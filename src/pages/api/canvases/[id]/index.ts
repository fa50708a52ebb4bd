import { deleteCanvas } from '../../../../data/canvas';
import { canvasFactsSchema } from '../../../../server/corrections/contract';
import { correctFacts } from '../../../../server/corrections/writes';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../server/http/endpoint';
import { shelfEntry } from '../../../../server/shelf/view';

export const GET = canvasEndpoint(async (database, canvas) => json(await shelfEntry(database, canvas.id)));

export const PATCH = canvasEndpoint(async (database, canvas, { request }) => {
  const facts = await readJson(request, canvasFactsSchema);
  await correctFacts(database, canvas, facts, screenOf(request));
  return json(await shelfEntry(database, canvas.id));
});

export const DELETE = canvasEndpoint(async (database, canvas) => {
  await database.transaction((queries) => deleteCanvas(queries, canvas.id, new Date().toISOString()));
  return new Response(null, { status: 204 });
});
