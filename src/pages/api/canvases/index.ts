import { newCanvasSchema } from '../../../server/canvas/contract';
import { shelveCanvas } from '../../../server/canvas/writes';
import { readJson } from '../../../server/http/body';
import { endpoint, json } from '../../../server/http/endpoint';
import { shelfEntries, shelfEntry } from '../../../server/shelf/view';

export const GET = endpoint(async (database) => json(await shelfEntries(database)));

export const POST = endpoint(async (database, { request }) => {
  const canvas = await readJson(request, newCanvasSchema);
  await shelveCanvas(database, canvas);
  return json(await shelfEntry(database, canvas.id), 201);
});
