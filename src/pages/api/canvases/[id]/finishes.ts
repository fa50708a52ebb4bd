import { finishSchema } from '../../../../server/chart/contract';
import { repairView, replaceFinish } from '../../../../server/chart/edits';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../server/http/endpoint';

/** Gives drills another finish. It is taken back like any change of the chart, through `chart-edits`. */
export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const screen = screenOf(request);
  await replaceFinish(database, canvas, await readJson(request, finishSchema), screen);
  return json(await database.snapshot((queries) => repairView(queries, canvas, screen)), 201);
});
