import { bitmapOf } from '../../../../data/bench';
import { chartParts } from '../../../../server/chart/chartOut';
import { pictureQuery } from '../../../../server/chart/contract';
import { clothPicture } from '../../../../server/chart/pictures';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { show, width } = await readQuery(url, pictureQuery);
  const parts = await chartParts(database, canvas);
  const cells = parts.chart.cells.length;
  const laid = show === 'progress' ? await bitmapOf(database, canvas.id, cells) : null;
  return content(await clothPicture({ ...parts, laid, width }), 'image/png');
});
