import { chartToGrid } from '../../../../core/chart/fromGrid';
import { legendOf } from '../../../../data/canvases';
import { chartOf } from '../../../../data/chart';
import { canvasEndpoint, content } from '../../../../server/endpoint';
import { notFound } from '../../../../server/problem';

export const GET = canvasEndpoint(async (database, canvas) => {
  const chart = await chartOf(database, canvas);
  if (!chart) throw notFound('chart');
  const grid = chartToGrid(chart, await legendOf(database, canvas.id));
  return content(grid, 'text/csv; charset=utf-8', `${canvas.title} chart.csv`);
});
