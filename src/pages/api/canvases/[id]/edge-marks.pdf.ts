import { edgeStickers } from '../../../../core/chart/files/edgeStickers';
import { edgeMarksQuery } from '../../../../server/chart/contract';
import { printedPart } from '../../../../server/chart/panels';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { inWorker } from '../../../../server/jobs/pool';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { every, paper, panel } = await readQuery(url, edgeMarksQuery);
  const { area, title } = await printedPart(database, canvas, panel);
  const panels = panel === undefined ? canvas.panelRects : [area];
  return content(
    await inWorker('drawingPdf', {
      title: `Edge marks: ${title}`,
      pages: edgeStickers(panels, every, paper),
    }),
    'application/pdf',
    `${title} edge marks.pdf`,
  );
});
