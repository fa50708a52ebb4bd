import { stitchReadingSchema } from '../../server/contract/stitches';
import { endpoint, json, readJson } from '../../server/endpoint';
import { stitchView } from '../../server/stitches';

/** Reads a stitch chart and tells what it becomes; saves nothing. */
export const POST = endpoint(async (_database, { request }) =>
  json(stitchView(await readJson(request, stitchReadingSchema))),
);
