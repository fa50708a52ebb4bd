import { chartAs } from '../../../../server/chart/chartOut';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) =>
  content(await chartAs(database, canvas, 'csv'), 'text/csv; charset=utf-8', `${canvas.title} chart.csv`),
);
