import { printedChart } from '../../../../server/chart/chartOut';
import { chartPrintQuery } from '../../../../server/chart/contract';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { asJob } from '../../../../server/jobs/jobs';

export const GET = canvasEndpoint(async (database, canvas, { request, url }) => {
  const wish = await readQuery(url, chartPrintQuery);
  const pdf = await asJob(request, (job) => printedChart(database, canvas, wish, job));
  return content(pdf, 'application/pdf', `${canvas.title} chart.pdf`);
});
