import { chartToBytes } from '../../../../core/cells/chart';
import { counted } from '../../../../core/words/numbers';
import { chartOf } from '../../../../data/chart';
import { readChartFor } from '../../../../server/chart/chartFile';
import { chartFileQuery, cornersFrom } from '../../../../server/chart/contract';
import { beginChart, saveChart } from '../../../../server/chart/writes';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content, json } from '../../../../server/http/endpoint';
import { notFound, unreadable } from '../../../../server/http/problem';

export const GET = canvasEndpoint(async (database, canvas) => {
  const chart = await chartOf(database, canvas);
  if (!chart) throw notFound('chart');
  return content(chartToBytes(chart), 'application/octet-stream');
});

export const PUT = canvasEndpoint(async (database, canvas, { request, url }) => {
  const { unmatched, reading, words, corners } = await readQuery(url, chartFileQuery);
  const { chart, report } = await readChartFor(database, canvas, request, {
    reading,
    nearest: unmatched === 'nearest',
    words,
    corners: cornersFrom(corners),
  });
  if (report.unmatched.length > 0 && unmatched !== 'bare') {
    const values = report.unmatched
      .slice(0, 5)
      .map((entry) => entry.value)
      .join(', ');
    throw unreadable(
      `${counted(report.unmatched.length, 'colour or word', 'colours or words')} ${report.unmatched.length === 1 ? 'is' : 'are'} not in the colour list (${values}). ` +
        'Correct the list or the file, or say that those squares stay bare (unmatched=bare).',
      { report },
    );
  }
  if (report.drills === 0)
    throw unreadable('Nothing in this file matches any colour of the list.', { report });
  await database.transaction((queries) => saveChart(queries, canvas, chart));
  return json(report);
});

/** Begins a chart without a drill on it, for those who type it row by row. */
export const POST = canvasEndpoint(async (database, canvas) => {
  await beginChart(database, canvas);
  return json({ width: canvas.width, height: canvas.height }, 201);
});
