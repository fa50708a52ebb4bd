import { legendOf } from '../../../../../data/canvases';
import { putLidMark } from '../../../../../data/symbols';
import { lidMarkSchema } from '../../../../../server/contract/symbols';
import { canvasEndpoint, json, readJson } from '../../../../../server/endpoint';
import { unreadable } from '../../../../../server/problem';
import { symbolCheckView } from '../../../../../server/symbolCheck';

export const GET = canvasEndpoint(async (database, canvas) => json(await symbolCheckView(database, canvas)));

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const { line, other } = await readJson(request, lidMarkSchema);
  const lines = (await legendOf(database, canvas.id)).length;
  if (line > lines || (other ?? 1) > lines) throw unreadable('The sheet has no such line.');
  await putLidMark(database, canvas.id, line, other);
  return json(await symbolCheckView(database, canvas));
});
