import { ownTips, putOwnTips } from '../../data/placing';
import { readJson } from '../../server/http/body';
import { endpoint, json } from '../../server/http/endpoint';
import { tipsSchema } from '../../server/placing/contract';

export const GET = endpoint(async (database) => json({ tips: await ownTips(database) }));

export const PUT = endpoint(async (database, { request }) => {
  const { tips, before } = await readJson(request, tipsSchema);
  return json({ tips: await putOwnTips(database, tips, before) });
});
