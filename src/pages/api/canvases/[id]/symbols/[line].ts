import type { Canvas } from '../../../../../core/canvas/canvas';
import type { LegendLine } from '../../../../../core/canvas/legend';
import { legendOf } from '../../../../../data/canvas';
import type { Database } from '../../../../../data/engine/database';
import { putDrawing, removeDrawing } from '../../../../../data/symbols';
import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../../server/http/endpoint';
import { notFound } from '../../../../../server/http/problem';
import { drawingSchema } from '../../../../../server/symbols/contract';

async function lineOf(database: Database, canvas: Canvas, number: string | undefined): Promise<LegendLine> {
  const line = (await legendOf(database, canvas.id)).find((each) => String(each.line) === number);
  if (!line) throw notFound('such colour in the list');
  return line;
}

export const PUT = canvasEndpoint(async (database, canvas, { request, params }) => {
  const { path } = await readJson(request, drawingSchema);
  await putDrawing(database, canvas.id, await lineOf(database, canvas, params.line), path);
  return json(await legendOf(database, canvas.id));
});

export const DELETE = canvasEndpoint(async (database, canvas, { params }) => {
  await removeDrawing(database, canvas.id, await lineOf(database, canvas, params.line));
  return json(await legendOf(database, canvas.id));
});
