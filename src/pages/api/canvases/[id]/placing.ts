import { placingQuery } from '../../../../server/contract/placing';
import { canvasEndpoint, json, readQuery } from '../../../../server/endpoint';
import { placingView } from '../../../../server/placing';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { section } = await readQuery(url, placingQuery);
  return json(await placingView(database, canvas, section));
});
