import { labelsQuery } from '../../../../server/contract/labels';
import { drawingPdf } from '../../../../server/drawingPdf';
import { canvasEndpoint, content, readQuery } from '../../../../server/endpoint';
import { labelDrawings } from '../../../../server/labels';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const wish = await readQuery(url, labelsQuery);
  const pages = await labelDrawings(database, canvas, wish, url.origin);
  const pdf = await drawingPdf(`Labels: ${canvas.title}`, pages);
  return content(pdf, 'application/pdf', `${canvas.title} ${wish.format}.pdf`);
});
