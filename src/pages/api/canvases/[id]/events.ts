import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint } from '../../../../server/http/endpoint';
import { Problem } from '../../../../server/http/problem';
import { changesQuery } from '../../../../server/live/contract';
import { liveHub, readStamp } from '../../../../server/live/hub';
import { eventStream } from '../../../../server/live/stream';

/** What happens to the canvas from now on, as server-sent events; after a gap, what was missed. */
export const GET = canvasEndpoint(async (database, canvas, { request, url, locals }) => {
  const { after } = await readQuery(url, changesQuery);
  const hub = await liveHub(database);
  // A browser that comes back says by itself how far it came.
  const came = readStamp(request.headers.get('last-event-id')) ?? readStamp(after);
  const stream = await eventStream(locals.caller?.device ?? null, (reader) =>
    hub.read(canvas.id, reader, came),
  );
  if (!stream) throw new Problem(503, 'Too many', 'Too many screens follow this canvas already.');
  return stream;
});
