import { removeCanvas } from '../../../../data/canvases';
import { canvasEndpoint, json } from '../../../../server/endpoint';
import { shelfEntry } from '../../../../server/shelf';

export const GET = canvasEndpoint(async (database, canvas) => json(await shelfEntry(database, canvas.id)));

export const DELETE = canvasEndpoint(async (database, canvas) => {
  await removeCanvas(database, canvas.id);
  return new Response(null, { status: 204 });
});
