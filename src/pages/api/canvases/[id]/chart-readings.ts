import { readChartFor } from '../../../../server/chart/chartFile';
import { chartFileQuery, cornersFrom } from '../../../../server/chart/contract';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

/** Reads a chart file and tells what it understood; saves nothing. The file is kept for a while if it gets an id. */
export const POST = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { unmatched, reading, words, corners } = await readQuery(url, chartFileQuery);
  const { report } = await readChartFor(database, canvas, request, {
    reading,
    nearest: unmatched === 'nearest',
    words,
    corners: cornersFrom(corners),
  });
  return json(report);
});
