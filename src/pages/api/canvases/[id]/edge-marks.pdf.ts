import { edgeStickers } from '../../../../core/chart/edgeStickers';
import { edgeMarksQuery } from '../../../../server/contract/chart';
import { drawingPdf } from '../../../../server/drawingPdf';
import { canvasEndpoint, content, readQuery } from '../../../../server/endpoint';

export const GET = canvasEndpoint(async (_database, canvas, { url }) => {
  const { every, paper } = await readQuery(url, edgeMarksQuery);
  const pages = edgeStickers(canvas, every, paper);
  return content(
    await drawingPdf(`Edge marks: ${canvas.title}`, pages),
    'application/pdf',
    `${canvas.title} edge marks.pdf`,
  );
});
