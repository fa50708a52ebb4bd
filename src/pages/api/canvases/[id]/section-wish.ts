import { putSectionWish } from '../../../../data/sections';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { sectionWishSchema } from '../../../../server/sections/contract';

/** Not a ledger: how the user works holds as he said it last. */
export const PUT = canvasEndpoint(async (database, canvas, { request }) => {
  const wish = await readJson(request, sectionWishSchema);
  await putSectionWish(database, canvas.id, wish);
  return json(wish);
});
