import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { pullQuery } from '../../../../server/sections/contract';
import { pullListView } from '../../../../server/sections/pull';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const wish = await readQuery(url, pullQuery);
  return json(await database.snapshot((queries) => pullListView(queries, canvas, wish)));
});
