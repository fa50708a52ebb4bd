import { addCanvas } from '../../../data/canvases';
import { newCanvasSchema } from '../../../server/contract/canvases';
import { endpoint, json, readJson } from '../../../server/endpoint';
import { shelfEntries, shelfEntry } from '../../../server/shelf';

export const GET = endpoint(async (database) => json(await shelfEntries(database)));

export const POST = endpoint(async (database, { request }) => {
  const canvas = await readJson(request, newCanvasSchema);
  const added = await addCanvas(database, canvas, new Date().toISOString());
  return json(await shelfEntry(database, canvas.id), added ? 201 : 200);
});
