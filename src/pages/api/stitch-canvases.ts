import { stitchCanvasSchema } from '../../server/contract/stitches';
import { endpoint, json, readJson } from '../../server/endpoint';
import { addStitchCanvas } from '../../server/stitches';

/** Puts a stitch chart on the shelf as a canvas of drills. */
export const POST = endpoint(async (database, { request }) =>
  json(await addStitchCanvas(database, await readJson(request, stitchCanvasSchema)), 201),
);
