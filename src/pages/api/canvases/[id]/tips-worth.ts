import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { tipsWorthQuery } from '../../../../server/placing/contract';
import { tipsWorthView } from '../../../../server/placing/view';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { section } = await readQuery(url, tipsWorthQuery);
  return json(await tipsWorthView(database, canvas, section));
});
