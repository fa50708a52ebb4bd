import { putPlacingWish } from '../../../../data/placing';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { placingWishSchema } from '../../../../server/placing/contract';
import { placingStart } from '../../../../server/placing/view';

export const GET = canvasEndpoint(async (database, canvas) => json(await placingStart(database, canvas)));

/** Not a ledger: how the user lays holds as he said it last. */
export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const wish = await readJson(request, placingWishSchema);
  await putPlacingWish(database, canvas.id, wish);
  return json(wish);
});
