import { putBlockSize } from '../../../../data/sections';
import { blockSizeSchema } from '../../../../server/contract/sections';
import { canvasEndpoint, json, readJson } from '../../../../server/endpoint';
import { unreadable } from '../../../../server/problem';
import { faultInBlock, sectionsView } from '../../../../server/sections';

export const GET = canvasEndpoint(async (database, canvas) => json(await sectionsView(database, canvas)));

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const block = await readJson(request, blockSizeSchema);
  const fault = faultInBlock(canvas, block);
  if (fault !== null) throw unreadable(fault);
  await putBlockSize(database, canvas.id, block);
  return json(await sectionsView(database, canvas));
});
