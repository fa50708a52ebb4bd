import { ofLine } from '../../../../../core/canvas/legend';
import { legendOf } from '../../../../../data/canvas';
import { putLidMark } from '../../../../../data/symbols';
import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../../server/http/endpoint';
import { unreadable } from '../../../../../server/http/problem';
import { lidMarkSchema } from '../../../../../server/symbols/contract';
import { symbolCheckView } from '../../../../../server/symbols/view';

export const GET = canvasEndpoint(async (database, canvas) => json(await symbolCheckView(database, canvas)));

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const { line, other } = await readJson(request, lidMarkSchema);
  const legend = await legendOf(database, canvas.id);
  if (!ofLine(legend, line) || (other !== null && !ofLine(legend, other)))
    throw unreadable('The colour list has no such colour.');
  await database.transaction((queries) => putLidMark(queries, canvas.id, line, other));
  return json(await symbolCheckView(database, canvas));
});
