import { endpoint, isUuid } from '../../server/http/endpoint';
import { Problem, unreadable } from '../../server/http/problem';
import { liveHub, readStamp } from '../../server/live/hub';
import { eventStream } from '../../server/live/stream';

/** A browser has a handful of canvases open. */
const MOST_CANVASES = 24;

/**
 * One stream for all pages of a browser: what happens to the shelf, and to each canvas that is named (`canvas=ID`, or
 * `canvas=ID~12-3456` for what was missed since).
 */
export const GET = endpoint(async (database, { locals, url }) => {
  const asked = url.searchParams.getAll('canvas').map((each) => each.split('~'));
  if (asked.length > MOST_CANVASES)
    throw unreadable(`At most ${MOST_CANVASES} canvases can be followed at once.`);
  if (asked.some(([id]) => !isUuid(id))) throw unreadable('A canvas is named by its id.');
  const hub = await liveHub(database);
  const stream = await eventStream(locals.caller?.device ?? null, async (reader) => {
    const stops = [hub.readShelf(reader)];
    for (const [canvas = '', stamp = ''] of asked) {
      stops.push(
        await hub.read(
          canvas,
          {
            ...reader,
            send: (event, data, at) => reader.send(event, { canvas, stamp: at, ...data }, null),
            // The stream goes on for the others.
            close: () => {},
          },
          readStamp(stamp),
        ),
      );
    }
    if (stops[0] === null) return null;
    return () => {
      for (const stop of stops) stop?.();
    };
  });
  if (!stream) throw new Problem(503, 'Too many', 'Too many screens follow the shelf already.');
  return stream;
});
