import { chartAs } from '../../../../server/chart/chartOut';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) =>
  content(await chartAs(database, canvas, 'svg'), 'image/svg+xml', `${canvas.title} chart.svg`),
);
