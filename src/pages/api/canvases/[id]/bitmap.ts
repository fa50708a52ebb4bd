import { bitmapOf } from '../../../../data/bench';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) =>
  content(await bitmapOf(database, canvas.id, canvas.width * canvas.height), 'application/octet-stream'),
);
