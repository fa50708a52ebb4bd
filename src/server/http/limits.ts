import type { IncomingMessage, RequestListener, Server, ServerResponse } from 'node:http';

/** A request that takes longer is answered with a refusal, and its work is ended. */
const DEADLINE_MS = 60_000;
/** Work that a page watches and can cancel may take longer; the pool ends it a little earlier. */
const JOB_DEADLINE_MS = 250_000;
/** A household has a handful of screens, each with a few connections. */
const MAX_CONNECTIONS = 200;
const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);

/** Bounds what a client may hold on to. */
export function limitServer(server: Server): void {
  server.maxConnections = MAX_CONNECTIONS;
  server.headersTimeout = 10_000;
  server.requestTimeout = 120_000;
  // Longer than clients keep a connection: else one of them may send into a connection that is just being closed.
  server.keepAliveTimeout = 65_000;
}

/** Refuses what no route should ever see, and ends what takes too long. */
export function limited(listener: RequestListener): RequestListener {
  return (request, response) => {
    const fault = faultIn(request);
    if (fault) return refuse(response, fault.status, fault.detail);
    // A stream of events has no end by itself.
    if (/\/events(\?|$)/.test(request.url ?? '')) return listener(request, response);
    const isJob = /[?&]job=/.test(request.url ?? '');
    const deadline = setTimeout(
      () => {
        if (!response.headersSent) {
          refuse(response, 503, 'This took too long and was stopped. Try it with something smaller.');
        }
        // Whatever works for it still sees that nobody waits any more.
        request.destroy();
      },
      isJob ? JOB_DEADLINE_MS : DEADLINE_MS,
    );
    response.once('close', () => clearTimeout(deadline));
    listener(request, response);
  };
}

function faultIn({ method = '', url = '' }: IncomingMessage): { status: number; detail: string } | null {
  if (!METHODS.has(method)) return { status: 405, detail: `${method} is not answered here.` };
  const path = url.split(/[?#]/, 1)[0]!;
  // An address that is folded up by whoever reads it (`/a/%2e%2e/b` is `/b`) would mean another thing than it says.
  if (path.split('/').some((part) => /^(\.|%2e){1,2}$/i.test(part))) {
    return { status: 400, detail: 'The address leads through “..”, which is not taken.' };
  }
  try {
    if (decodeURIComponent(path).includes('\u0000')) throw new URIError();
  } catch {
    return { status: 400, detail: 'The address is not written as it should be.' };
  }
  return null;
}

function refuse(response: ServerResponse, status: number, detail: string): void {
  const title = status === 405 ? 'Not answered' : status === 400 ? 'Not an address' : 'Too long';
  const type = `urn:oculent:problem:${title.toLowerCase().replace(/ /g, '-')}`;
  response.writeHead(status, {
    'content-type': 'application/problem+json',
    'cache-control': 'no-store',
    'x-content-type-options': 'nosniff',
    ...(status === 405 && { allow: [...METHODS].join(', ') }),
  });
  response.end(JSON.stringify({ type, title, status, detail }));
}
