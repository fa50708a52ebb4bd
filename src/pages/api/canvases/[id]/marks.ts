import { markSchema } from '../../../../server/bench/contract';
import { benchView } from '../../../../server/bench/view';
import { enterMark } from '../../../../server/bench/writes';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => json(await benchView(database, canvas)));

export const POST = canvasEndpoint(async (database, canvas, { request }) =>
  json(await enterMark(database, canvas, await readJson(request, markSchema))),
);
