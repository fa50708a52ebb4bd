import { canvasIdsEnding } from '../../../data/canvas';
import { endpoint } from '../../../server/http/endpoint';
import { notFound } from '../../../server/http/problem';

/** The short address on a label: opens the colour at kit-up. */
export const GET = endpoint(async (database, { params, redirect }) => {
  const { canvas = '', line = '' } = params;
  const ids = /^[0-9A-F]{8}$/i.test(canvas) ? await canvasIdsEnding(database, canvas.toLowerCase()) : [];
  const [id] = ids;
  if (id === undefined || !/^\d{1,5}$/.test(line)) throw notFound('colour with this label');
  // Eight digits of a random id; should two canvases ever share them, the shelf is the honest answer.
  return ids.length > 1 ? redirect('/') : redirect(`/canvas/${id}/kitup?colour=${line}`);
});
