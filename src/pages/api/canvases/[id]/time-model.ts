import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { timeModelQuery } from '../../../../server/sections/contract';
import { timeModelView } from '../../../../server/sections/timeModel';

export const GET = canvasEndpoint(async (database, _, { url }) => {
  const { maker } = await readQuery(url, timeModelQuery);
  return json(await timeModelView(database, maker));
});
