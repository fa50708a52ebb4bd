import { readChartFor } from '../../../../server/chart/chartFile';
import { chartFileQuery } from '../../../../server/chart/contract';
import { chartReport } from '../../../../server/chart/view';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

/** Reads a chart file and tells what it understood; saves nothing. */
export const POST = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { unmatched } = await readQuery(url, chartFileQuery);
  const { reading, legend } = await readChartFor(database, canvas, request, unmatched === 'nearest');
  return json(chartReport(reading, legend));
});
