import { chartParts, chartPdf } from '../../../../server/chart/chartOut';
import { chartPrintQuery } from '../../../../server/chart/contract';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const wish = await readQuery(url, chartPrintQuery);
  const parts = await chartParts(database, canvas);
  return content(
    await chartPdf(database, canvas, parts, wish),
    'application/pdf',
    `${canvas.title} chart.pdf`,
  );
});
