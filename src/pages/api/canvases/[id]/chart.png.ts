import { chartParts, chartPng } from '../../../../server/chart/chartOut';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { chart, legend } = await chartParts(database, canvas);
  return content(await chartPng(chart, legend), 'image/png', `${canvas.title} chart.png`);
});
