import { chartToGrid } from '../../../../core/chart/files/fromGrid';
import { chartParts } from '../../../../server/chart/chartOut';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { chart, legend } = await chartParts(database, canvas);
  return content(chartToGrid(chart, legend), 'text/csv; charset=utf-8', `${canvas.title} chart.csv`);
});
