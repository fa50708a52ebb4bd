import { legendOf } from '../../../../data/canvases';
import { saveSheet } from '../../../../server/checkin';
import { sheetSchema } from '../../../../server/contract/canvases';
import { canvasEndpoint, json, readJson } from '../../../../server/endpoint';

export const GET = canvasEndpoint(async (database, canvas) =>
  json({ canvasId: canvas.id, lines: await legendOf(database, canvas.id) }),
);

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const { lines } = await readJson(request, sheetSchema);
  await saveSheet(database, canvas, lines);
  return json({ canvasId: canvas.id, lines });
});
