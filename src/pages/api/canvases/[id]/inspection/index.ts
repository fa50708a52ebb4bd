import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../../server/http/endpoint';
import { inspectionSchema } from '../../../../../server/inspection/contract';
import { inspectionView } from '../../../../../server/inspection/view';
import { noteInspection } from '../../../../../server/inspection/writes';

export const GET = canvasEndpoint(async (database, canvas) =>
  json(await database.snapshot((queries) => inspectionView(queries, canvas))),
);

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await noteInspection(database, canvas, await readJson(request, inspectionSchema));
  return json(await database.snapshot((queries) => inspectionView(queries, canvas)), 201);
});
