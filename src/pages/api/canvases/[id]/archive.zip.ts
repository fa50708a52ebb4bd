import { archiveOf } from '../../../../server/archive/archiveOut';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) =>
  content(await archiveOf(database, canvas, new Date()), 'application/zip', `${canvas.title}.zip`),
);
