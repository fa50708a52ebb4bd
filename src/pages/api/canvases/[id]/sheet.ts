import type { Canvas } from '../../../../core/canvas/canvas';
import { legendOf } from '../../../../data/canvas';
import type { Queries } from '../../../../data/engine/database';
import { type ColourListView, colourListSchema } from '../../../../server/corrections/contract';
import { saveColourList, versionOf } from '../../../../server/corrections/writes';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => json(await listOf(database, canvas)));

export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  await saveColourList(database, canvas, await readJson(request, colourListSchema), screenOf(request));
  return json(await listOf(database, canvas));
});

async function listOf(queries: Queries, canvas: Canvas): Promise<ColourListView> {
  const lines = await legendOf(queries, canvas.id);
  return { canvasId: canvas.id, version: versionOf(lines), lines };
}
