import { benchView, enterMark } from '../../../../server/bench';
import { markSchema } from '../../../../server/contract/bench';
import { canvasEndpoint, json, readJson } from '../../../../server/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => json(await benchView(database, canvas)));

export const POST = canvasEndpoint(async (database, canvas, { request }) =>
  json(await enterMark(database, canvas, await readJson(request, markSchema))),
);
