import { chartAs } from '../../../../server/chart/chartOut';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) =>
  content(await chartAs(database, canvas, 'json'), 'application/json', `${canvas.title} chart.json`),
);
