import { archiveOf } from '../../../../server/archive';
import { canvasEndpoint, content } from '../../../../server/endpoint';

export const GET = canvasEndpoint(async (database, canvas) =>
  content(await archiveOf(database, canvas, new Date()), 'application/zip', `${canvas.title}.zip`),
);
