import { readJson } from '../../server/http/body';
import { endpoint, json } from '../../server/http/endpoint';
import { stitchCanvasSchema } from '../../server/stitches/contract';
import { addStitchCanvas } from '../../server/stitches/writes';

/** Puts a stitch chart on the shelf as a canvas of drills. */
export const POST = endpoint(async (database, { request }) =>
  json(await addStitchCanvas(database, await readJson(request, stitchCanvasSchema)), 201),
);
