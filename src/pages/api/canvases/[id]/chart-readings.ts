import { chartReport } from '../../../../server/chart';
import { readChartFor } from '../../../../server/chartFile';
import { chartFileQuery } from '../../../../server/contract/chart';
import { canvasEndpoint, json, readQuery } from '../../../../server/endpoint';

/** Reads a chart file and tells what it understood; saves nothing. */
export const POST = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { unmatched } = await readQuery(url, chartFileQuery);
  const { reading, legend } = await readChartFor(database, canvas, request, unmatched === 'nearest');
  return json(chartReport(reading, legend));
});
