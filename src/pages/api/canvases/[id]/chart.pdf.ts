import { chartParts, chartPdf } from '../../../../server/chartOut';
import { chartPrintQuery } from '../../../../server/contract/chart';
import { canvasEndpoint, content, readQuery } from '../../../../server/endpoint';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const wish = await readQuery(url, chartPrintQuery);
  const parts = await chartParts(database, canvas);
  return content(
    await chartPdf(database, canvas, parts, wish),
    'application/pdf',
    `${canvas.title} chart.pdf`,
  );
});
