import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { notFound } from '../../../../server/http/problem';
import { changesQuery } from '../../../../server/live/contract';
import { liveHub, readStamp } from '../../../../server/live/hub';

/** What was missed since a stamp, at once; the stream goes on from there. */
export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { after } = await readQuery(url, changesQuery);
  const hub = await liveHub(database);
  const changes = await hub.changes(canvas.id, readStamp(after) ?? { revision: 0, position: 0 });
  if (!changes) throw notFound('canvas');
  return json(changes);
});
