import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import { SIGNED_IN_DAYS } from '../../core/devices/device';
import { type DeviceSession, endSession, seeSession, sessionOf } from '../../data/devices';
import type { Queries } from '../../data/engine/database';
import { markCaller } from './caller';
import { sessionCookie, tokenHash, tokenOf } from './joining';

/** What the door leaves open: how to join, and files that say nothing of the shelf. */
const OPEN =
  /^\/(join|api\/devices\/joining|authority\.crt|_astro\/.*|mark[\w-]*\.(svg|png)|site\.webmanifest|service\.js)$/;
/** A device is noted as seen once in so many milliseconds. */
const SEEN_MS = 60_000;
const RENEWED_MS = 86_400_000;

/** What the door needs to know. */
export interface DoorWorld {
  queries(): Promise<Queries>;
  /** Whether this is a host under which the machine answers, with its port. */
  isOurs(host: string): boolean;
  /** Milliseconds of the calendar. */
  now(): number;
}

/**
 * Stands between the home network and the pages: only devices that joined come through, and strangers learn nothing.
 */
export function behindDoor(listener: RequestListener, world: DoorWorld): RequestListener {
  return (request, response) => {
    void admit(listener, world, request, response).catch(() =>
      refuse(response, 503, 'Not now', 'Oculent cannot look up who asks. Try again in a moment.'),
    );
  };
}

async function admit(
  listener: RequestListener,
  world: DoorWorld,
  request: IncomingMessage,
  response: ServerResponse,
): Promise<void> {
  if (!world.isOurs(request.headers.host ?? '')) {
    return refuse(response, 421, 'Not answered', 'There is no answer under this name.');
  }
  const address = request.socket.remoteAddress ?? '';
  const token = tokenOf(request.headers.cookie);
  const queries = await world.queries();
  const session = token === null ? null : await goodSession(queries, tokenHash(token), world.now());
  if (session && token !== null) {
    const since = world.now() - Date.parse(session.lastSeenAt);
    const renews = Math.abs(world.now() - Date.parse(session.renewedAt)) > RENEWED_MS;
    if (renews || since > SEEN_MS) {
      await seeSession(queries, tokenHash(token), new Date(world.now()).toISOString(), address, renews);
    }
    if (renews) response.setHeader('set-cookie', sessionCookie(token));
    const { id, name, joinedBy } = session;
    markCaller(request, { address, device: { id, name, joinedBy } });
    return listener(request, response);
  }
  const path = (request.url ?? '/').split(/[?#]/, 1)[0]!;
  if (OPEN.test(path)) {
    markCaller(request, { address, device: null });
    return listener(request, response);
  }
  const wantsPage = request.method === 'GET' && /text\/html/.test(request.headers.accept ?? '');
  if (!wantsPage)
    return refuse(response, 401, 'Not joined', 'This device has not joined, or was signed out.');
  response.writeHead(303, {
    location: `/join?to=${encodeURIComponent(request.url ?? '/')}`,
    'cache-control': 'no-store',
    // What waits there to be sent stays; what was kept to be read, the page itself throws away.
    ...(token !== null && { 'clear-site-data': '"cache"' }),
  });
  response.end();
}

/** A session that has not run out. A clock that was set back does not end one. */
async function goodSession(queries: Queries, hash: string, now: number): Promise<DeviceSession | null> {
  const session = await sessionOf(queries, hash);
  if (!session) return null;
  if (now - Date.parse(session.lastSeenAt) <= SIGNED_IN_DAYS * 86_400_000) return session;
  await endSession(queries, hash);
  return null;
}

function refuse(response: ServerResponse, status: number, title: string, detail: string): void {
  if (response.headersSent) return void response.end();
  const type = `urn:oculent:problem:${title.toLowerCase().replace(/ /g, '-')}`;
  response.writeHead(status, {
    'content-type': 'application/problem+json',
    'cache-control': 'no-store',
    'x-content-type-options': 'nosniff',
  });
  response.end(JSON.stringify({ type, title, status, detail }));
}
