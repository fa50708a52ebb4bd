import type { Corners } from '../../core/reading/homography';
import { findCanvas } from '../../data/canvas';
import { MAX_REQUEST_BYTES, readBody, readQuery } from '../../server/http/body';
import { endpoint, json } from '../../server/http/endpoint';
import { notFound } from '../../server/http/problem';
import { asJob } from '../../server/jobs/jobs';
import { inWorker } from '../../server/jobs/pool';
import { sheetPhotoQuery } from '../../server/reading/contract';

/** Reads a photo of the printed sheet, and tells what it understood and what is doubtful; saves nothing. */
export const POST = endpoint(async (database, { request, url }) => {
  const { canvas: id, corners } = await readQuery(url, sheetPhotoQuery);
  const canvas = await findCanvas(database, id);
  if (!canvas) throw notFound('canvas');
  const n = corners.split(',').map(Number);
  const spots = [0, 2, 4, 6].map((i) => [n[i]!, n[i + 1]!]) as unknown as Corners;
  const bytes = await readBody(request, MAX_REQUEST_BYTES);
  const input = {
    ...{ bytes, corners: spots, packetDrills: canvas.packetDrills },
    squares: canvas.width * canvas.height,
  };
  return json(await asJob(request, (job) => inWorker('readSheetPhoto', input, job)));
});
