import { readJson } from '../../server/http/body';
import { endpoint, json } from '../../server/http/endpoint';
import { inWorker } from '../../server/jobs/pool';
import { stitchReadingSchema } from '../../server/stitches/contract';

/** Reads a stitch chart and tells what it becomes; saves nothing. */
export const POST = endpoint(async (_database, { request }) =>
  json((await inWorker('stitchReading', await readJson(request, stitchReadingSchema))).view),
);
