import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { labelsQuery } from '../../../../server/labels/contract';
import { labelDrawings } from '../../../../server/labels/view';
import { drawingPdf } from '../../../../server/print/drawingPdf';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const wish = await readQuery(url, labelsQuery);
  const pages = await labelDrawings(database, canvas, wish, url.origin);
  const pdf = await drawingPdf(`Labels: ${canvas.title}`, pages);
  return content(pdf, 'application/pdf', `${canvas.title} ${wish.format}.pdf`);
});
