import { putBlockSize } from '../../../../data/sections';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { unreadable } from '../../../../server/http/problem';
import { blockSizeSchema } from '../../../../server/sections/contract';
import { faultInBlock, sectionsView } from '../../../../server/sections/view';

export const GET = canvasEndpoint(async (database, canvas) =>
  json(await database.snapshot((queries) => sectionsView(queries, canvas))),
);

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const block = await readJson(request, blockSizeSchema);
  const fault = faultInBlock(canvas, block);
  if (fault !== null) throw unreadable(fault);
  await putBlockSize(database, canvas.id, block);
  return json(await database.snapshot((queries) => sectionsView(queries, canvas)));
});
