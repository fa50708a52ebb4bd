import { legendOf } from '../../../../data/canvas';
import { sheetSchema } from '../../../../server/canvas/contract';
import { saveSheet } from '../../../../server/checkin/writes';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) =>
  json({ canvasId: canvas.id, lines: await legendOf(database, canvas.id) }),
);

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const { lines } = await readJson(request, sheetSchema);
  await saveSheet(database, canvas, lines);
  return json({ canvasId: canvas.id, lines });
});
