import { edgeStickers } from '../../../../core/chart/files/edgeStickers';
import { edgeMarksQuery } from '../../../../server/contract/chart';
import { drawingPdf } from '../../../../server/drawingPdf';
import { canvasEndpoint, content, readQuery } from '../../../../server/endpoint';
import { printedPart } from '../../../../server/panels';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { every, paper, panel } = await readQuery(url, edgeMarksQuery);
  const { area, title } = await printedPart(database, canvas, panel);
  const cloth = panel === undefined ? canvas : { ...area, panels: 1 };
  return content(
    await drawingPdf(`Edge marks: ${title}`, edgeStickers(cloth, every, paper)),
    'application/pdf',
    `${title} edge marks.pdf`,
  );
});
