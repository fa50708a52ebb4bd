import { removeCanvas } from '../../../../data/canvas';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { shelfEntry } from '../../../../server/shelf/view';

export const GET = canvasEndpoint(async (database, canvas) => json(await shelfEntry(database, canvas.id)));

export const DELETE = canvasEndpoint(async (database, canvas) => {
  await removeCanvas(database, canvas.id);
  return new Response(null, { status: 204 });
});
