import { bringBackInspectionEntry, withdrawInspectionEntry } from '../../../../../../data/inspection';
import { readJson } from '../../../../../../server/http/body';
import { canvasEndpoint, isUuid, json } from '../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../server/http/problem';
import { inspectionSchema } from '../../../../../../server/inspection/contract';
import { inspectionView } from '../../../../../../server/inspection/view';
import { correctInspection } from '../../../../../../server/inspection/writes';

/** Corrects an entry. */
export const PUT = canvasEndpoint(async (database, canvas, { request, params }) => {
  if (!isUuid(params.entry)) throw notFound('such entry');
  await correctInspection(database, canvas, params.entry, await readJson(request, inspectionSchema));
  return json(await database.snapshot((queries) => inspectionView(queries, canvas)));
});

/** Takes an entry out of the record; it is kept for a while. */
export const DELETE = canvasEndpoint(async (database, canvas, { params }) => {
  if (!isUuid(params.entry)) throw notFound('such entry');
  await withdrawInspectionEntry(database, canvas.id, params.entry, new Date().toISOString());
  return json(await database.snapshot((queries) => inspectionView(queries, canvas)));
});

/** Brings an entry back that was taken out. */
export const POST = canvasEndpoint(async (database, canvas, { params }) => {
  if (!isUuid(params.entry) || !(await bringBackInspectionEntry(database, canvas.id, params.entry)))
    throw notFound('such deleted entry');
  return json(await database.snapshot((queries) => inspectionView(queries, canvas)));
});
