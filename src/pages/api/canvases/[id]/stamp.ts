import { stampOf } from '../../../../data/once';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

/** A word that changes with every change of the canvas, its marks included. */
export const GET = canvasEndpoint(async (database, canvas) =>
  json({ stamp: await stampOf(database, canvas.id) }),
);
