import { ownTips, putOwnTips } from '../../data/placing';
import { tipsSchema } from '../../server/contract/placing';
import { endpoint, json, readJson } from '../../server/endpoint';

export const GET = endpoint(async (database) => json({ tips: await ownTips(database) }));

export const PUT = endpoint(async (database, { request }) => {
  const { tips } = await readJson(request, tipsSchema);
  return json({ tips: await putOwnTips(database, tips) });
});
