import { readJson } from '../../server/http/body';
import { endpoint, json } from '../../server/http/endpoint';
import { stitchReadingSchema } from '../../server/stitches/contract';
import { stitchView } from '../../server/stitches/writes';

/** Reads a stitch chart and tells what it becomes; saves nothing. */
export const POST = endpoint(async (_database, { request }) =>
  json(stitchView(await readJson(request, stitchReadingSchema))),
);
