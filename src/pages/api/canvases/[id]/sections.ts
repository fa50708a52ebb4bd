import { randomUUID } from 'node:crypto';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../server/http/endpoint';
import { cutSchema } from '../../../../server/sections/contract';
import { sectionsView } from '../../../../server/sections/view';
import { keepCut } from '../../../../server/sections/writes';

export const GET = canvasEndpoint(async (database, canvas, { request }) =>
  json(await sectionsView(database, canvas, screenOf(request))),
);

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const { id = randomUUID(), ...wish } = await readJson(request, cutSchema);
  await keepCut(database, canvas, { id, ...wish }, screenOf(request));
  return json(await sectionsView(database, canvas, screenOf(request)));
});
