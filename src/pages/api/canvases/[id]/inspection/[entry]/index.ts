import { withdrawInspectionEntry } from '../../../../../../data/inspection';
import { canvasEndpoint, isUuid, json } from '../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../server/http/problem';
import { inspectionView } from '../../../../../../server/inspection/view';

export const DELETE = canvasEndpoint(async (database, canvas, { params }) => {
  if (!isUuid(params.entry)) throw notFound('such entry');
  await withdrawInspectionEntry(database, canvas.id, params.entry, new Date().toISOString());
  return json(await database.transaction((queries) => inspectionView(queries, canvas)));
});
