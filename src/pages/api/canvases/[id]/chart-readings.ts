import { chartReport, readChartFor } from '../../../../server/chart';
import { canvasEndpoint, json } from '../../../../server/endpoint';

/** Reads a chart file and tells what it understood; saves nothing. */
export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const { reading, legend } = await readChartFor(database, canvas, request);
  return json(chartReport(reading, legend));
});
