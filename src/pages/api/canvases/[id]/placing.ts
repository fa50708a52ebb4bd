import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { placingQuery } from '../../../../server/placing/contract';
import { placingView } from '../../../../server/placing/view';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { section } = await readQuery(url, placingQuery);
  return json(await database.snapshot((queries) => placingView(queries, canvas, section)));
});
