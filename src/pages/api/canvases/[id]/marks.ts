import { markSchema } from '../../../../server/bench/contract';
import { benchView } from '../../../../server/bench/view';
import { enterMark } from '../../../../server/bench/writes';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas, { request }) =>
  json(await database.snapshot((queries) => benchView(queries, canvas, screenOf(request)))),
);

export const POST = canvasEndpoint(async (database, canvas, { request }) =>
  json(await enterMark(database, canvas, await readJson(request, markSchema), screenOf(request)), 201),
);
