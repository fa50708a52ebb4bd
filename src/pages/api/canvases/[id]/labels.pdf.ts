import { potsInCodeOrder } from '../../../../core/kitup/pots';
import { legendOf } from '../../../../data/canvases';
import { labelsQuery } from '../../../../server/contract/kitup';
import { canvasEndpoint, content, readQuery } from '../../../../server/endpoint';
import { labelsPdf } from '../../../../server/labelsPdf';
import { conflict } from '../../../../server/problem';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { paper } = await readQuery(url, labelsQuery);
  const pots = potsInCodeOrder(await legendOf(database, canvas.id));
  if (pots.length === 0) throw conflict('Labels are printed from the sheet, and this canvas has none yet.');
  const pdf = await labelsPdf(canvas.title, canvas.shape, pots, paper);
  return content(pdf, 'application/pdf', `${canvas.title} labels ${paper}.pdf`);
});
