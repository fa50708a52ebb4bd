import { addInspectionEntry } from '../../../../../data/inspection';
import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../../server/http/endpoint';
import { inspectionSchema } from '../../../../../server/inspection/contract';
import { inspectionView } from '../../../../../server/inspection/view';

export const GET = canvasEndpoint(async (database, canvas) => json(await inspectionView(database, canvas)));

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const entry = await readJson(request, inspectionSchema);
  await addInspectionEntry(database, canvas.id, { ...entry, happenedAt: new Date().toISOString() });
  return json(await inspectionView(database, canvas));
});
