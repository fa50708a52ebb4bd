import { findCanvas, legendOf } from '../../../../../data/canvas';
import { chartOf } from '../../../../../data/chart';
import { readQuery } from '../../../../../server/http/body';
import { canvasEndpoint } from '../../../../../server/http/endpoint';
import { notFound } from '../../../../../server/http/problem';
import { inWorker } from '../../../../../server/jobs/pool';
import { simulatedQuery } from '../../../../../server/reading/contract';

/** A photo by the simulated camera, of another canvas of the shelf; where its squares lie is in a header. */
export const GET = canvasEndpoint(async (database, _canvas, { url }) => {
  if (!process.env.OCULENT_SIMULATED) throw notFound('camera');
  const { of, what, level, seed, px, x, y, width, height } = await readQuery(url, simulatedQuery);
  const subject = await findCanvas(database, of);
  if (!subject) throw notFound('such canvas');
  const legend = await legendOf(database, of);
  const rect =
    what === 'squares' && width !== undefined && height !== undefined
      ? { x: x ?? 0, y: y ?? 0, width, height }
      : null;
  const chart = rect && (await chartOf(database, subject));
  const { jpeg, corners } =
    what === 'sheet'
      ? await inWorker('simulatedSheet', { legend, seed })
      : await inWorker('simulatedPhoto', { legend, chart, rect, level, seed, px });
  return new Response(Uint8Array.from(jpeg), {
    headers: { 'content-type': 'image/jpeg', 'x-oculent-corners': JSON.stringify(corners) },
  });
});
