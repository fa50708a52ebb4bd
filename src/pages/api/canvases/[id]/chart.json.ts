import { chartToJson } from '../../../../core/chart/files/chartJson';
import { chartParts } from '../../../../server/chart/chartOut';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { chart, legend } = await chartParts(database, canvas);
  return content(chartToJson(chart, legend), 'application/json', `${canvas.title} chart.json`);
});
