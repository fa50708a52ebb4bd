import { addInspectionEntry } from '../../../../../data/inspection';
import { inspectionSchema } from '../../../../../server/contract/inspection';
import { canvasEndpoint, json, readJson } from '../../../../../server/endpoint';
import { inspectionView } from '../../../../../server/inspection';

export const GET = canvasEndpoint(async (database, canvas) => json(await inspectionView(database, canvas)));

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const entry = await readJson(request, inspectionSchema);
  await addInspectionEntry(database, canvas.id, { ...entry, happenedAt: new Date().toISOString() });
  return json(await inspectionView(database, canvas));
});
