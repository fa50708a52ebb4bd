import { endSession } from '../../../data/devices';
import { sessionCookie, tokenHash, tokenOf } from '../../../server/devices/joining';
import { endpoint } from '../../../server/http/endpoint';

/** Signs out the device that asks, and lets its browser forget what it kept. */
export const POST = endpoint(async (database, { request }) => {
  const token = tokenOf(request.headers.get('cookie'));
  if (token !== null) await endSession(database, tokenHash(token));
  return new Response(null, {
    status: 204,
    headers: { 'set-cookie': sessionCookie(null), 'clear-site-data': '"cache"' },
  });
});
