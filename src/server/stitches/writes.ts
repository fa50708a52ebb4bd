import type { InferType } from 'yup';
import type { CanvasFacts } from '../../core/canvas/canvas';
import { countDrills } from '../../core/cells/chart';
import { addCanvas, replaceLegend } from '../../data/canvas';
import { putChart } from '../../data/chart';
import type { Database } from '../../data/engine/database';
import { newCanvasSchema, sheetSchema } from '../canvas/contract';
import { once } from '../http/once';
import { idTaken, unreadable } from '../http/problem';
import { inWorker } from '../jobs/pool';
import type { stitchCanvasSchema } from './contract';
import { PACKET_DRILLS } from './reading';

/**
 * Puts a stitch chart on the shelf as a canvas with its sheet and chart. The same id again changes nothing.
 * @throws Problem while a thread has no drill, or when the files cannot be taken
 */
export async function addStitchCanvas(
  database: Database,
  wish: InferType<typeof stitchCanvasSchema>,
): Promise<CanvasFacts> {
  const { result } = await inWorker('stitchReading', wish);
  if (!result) throw unreadable('Some threads have no drill yet. Choose one for each.');
  const { chart, legend } = result;
  if (countDrills(chart) === 0) throw unreadable('No cell of the grid holds a thread of the list.');
  const canvas: CanvasFacts = await newCanvasSchema.validate({
    id: wish.id,
    title: wish.title,
    shape: wish.shape,
    pitchMm: wish.pitchMm,
    width: chart.width,
    height: chart.height,
    symbolsPrinted: false,
    packetDrills: PACKET_DRILLS,
  });
  await sheetSchema.validate({ lines: legend });
  await once(
    database,
    { id: wish.id, what: 'stitch canvas', canvasId: null, content: wish },
    async (queries) => {
      if (!(await addCanvas(queries, canvas, new Date().toISOString()))) throw idTaken();
      await replaceLegend(queries, canvas.id, legend);
      await putChart(queries, canvas.id, chart);
    },
  );
  return canvas;
}
