import { addCanvas } from '../../../data/canvas';
import { newCanvasSchema } from '../../../server/canvas/contract';
import { readJson } from '../../../server/http/body';
import { endpoint, json } from '../../../server/http/endpoint';
import { shelfEntries, shelfEntry } from '../../../server/shelf/view';

export const GET = endpoint(async (database) => json(await shelfEntries(database)));

export const POST = endpoint(async (database, { request }) => {
  const canvas = await readJson(request, newCanvasSchema);
  const added = await addCanvas(database, canvas, new Date().toISOString());
  return json(await shelfEntry(database, canvas.id), added ? 201 : 200);
});
