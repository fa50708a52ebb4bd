import { percentLaid } from '../../../../core/progress/progress';
import { stampOf } from '../../../../data/once';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

/** A word that changes with every change of the canvas, its marks included, and how much of it is laid. */
export const GET = canvasEndpoint(async (database, canvas) => {
  const { stamp, laid, drills } = await stampOf(database, canvas.id);
  return json({ stamp, laid, drills, percent: percentLaid(laid, drills) });
});
