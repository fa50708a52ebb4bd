import { describe, expect, it, vi } from 'vitest';

vi.mock('astro:middleware', () => ({ defineMiddleware: (handler: unknown) => handler }));
const { onRequest } = await import('../../src/middleware');

/** Runs the middleware for a request that came through the door of the home network. */
async function ask(routePattern: string, caller: App.Locals['caller']): Promise<Response> {
  const url = new URL(`https://192.168.1.20:4471${routePattern}`);
  const context = {
    request: new Request(url, { headers: { host: url.host } }),
    url,
    routePattern,
    locals: { caller },
  };
  return (await onRequest(context as never, async () => new Response('inside'))) as Response;
}

describe('whatever address a stranger finds a way by', () => {
  const stranger = { address: '192.168.1.66', device: null };
  const tablet = { address: '192.168.1.7', device: { id: 'x', name: 'Tablet', joinedBy: 'code' as const } };

  it.each([
    '/',
    '/api/canvases',
    '/canvas/[id]/bench',
    '/api/devices',
    '/api/devices/codes',
    '/api/[...missing]',
  ])('%s is closed, and open to a device that joined', async (route) => {
    expect((await ask(route, stranger)).status).toBe(401);
    expect(await (await ask(route, tablet)).text()).toBe('inside');
  });

  it.each(['/join', '/api/devices/joining', '/authority.crt', '/404'])('%s is open', async (route) => {
    expect(await (await ask(route, stranger)).text()).toBe('inside');
  });
});
