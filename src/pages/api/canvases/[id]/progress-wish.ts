import { finishByOf, putFinishBy } from '../../../../data/progress';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { finishBySchema } from '../../../../server/progress/contract';

export const GET = canvasEndpoint(async (database, canvas) =>
  json({ finishBy: await finishByOf(database, canvas.id) }),
);

/** By when the canvas shall be done. */
export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const { finishBy } = await readJson(request, finishBySchema);
  await database.transaction((queries) => putFinishBy(queries, canvas.id, finishBy));
  return json({ finishBy });
});
