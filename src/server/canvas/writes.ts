import { type CanvasFacts, factsOf } from '../../core/canvas/canvas';
import { addCanvas, findCanvas } from '../../data/canvas';
import type { Database } from '../../data/engine/database';
import { idTaken } from '../http/problem';

/** Puts a canvas on the shelf. The same one again changes nothing. @throws Problem when its id stands for another */
export async function shelveCanvas(database: Database, canvas: CanvasFacts): Promise<void> {
  await database.transaction(async (queries) => {
    if (await addCanvas(queries, canvas, new Date().toISOString())) return;
    const known = await findCanvas(queries, canvas.id);
    const same =
      known &&
      Object.entries(factsOf(known)).every(([name, value]) => canvas[name as keyof CanvasFacts] === value);
    if (!same) throw idTaken();
  });
}
