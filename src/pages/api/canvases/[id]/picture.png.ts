import { hexToRgb, UNKNOWN_COLOUR } from '../../../../core/colour/rgb';
import { clothColours, paintCloth } from '../../../../core/view/paint';
import { bitmapOf } from '../../../../data/bench';
import { legendOf } from '../../../../data/canvas';
import { chartOf } from '../../../../data/chart';
import { pictureQuery } from '../../../../server/chart/contract';
import { CLOTH, encodePng } from '../../../../server/files/pixels';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { notFound } from '../../../../server/http/problem';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { show, width } = await readQuery(url, pictureQuery);
  const chart = await chartOf(database, canvas);
  if (!chart) throw notFound('chart');
  const legend = await legendOf(database, canvas.id);
  const colours = clothColours(
    legend.map((line) => hexToRgb(line.hex ?? UNKNOWN_COLOUR)),
    CLOTH,
  );
  const laid = show === 'progress' ? await bitmapOf(database, canvas.id, chart.cells.length) : null;
  const pixels = new Uint8ClampedArray(chart.cells.length * 4);
  paintCloth(chart, colours, { laid, focus: null }, pixels);
  return content(await encodePng(chart.width, chart.height, pixels, width), 'image/png');
});
