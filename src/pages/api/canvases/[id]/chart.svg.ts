import { chartParts, chartSvgOf } from '../../../../server/chart/chartOut';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { chart, legend } = await chartParts(database, canvas);
  return content(await chartSvgOf(chart, legend, canvas), 'image/svg+xml', `${canvas.title} chart.svg`);
});
