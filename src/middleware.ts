import { defineMiddleware } from 'astro:middleware';
import { BUILD_HEADER, currentBuild } from './server/http/build';
import { addSecurityHeaders, refuseForeign } from './server/http/guard';
import { wrongMethod } from './server/http/methods';
import { waitedMs } from './server/http/moment';
import { notFound, notJoined, problemResponse } from './server/http/problem';
import { readably } from './server/http/problemPage';
import { currentRequest } from './server/jobs/currentRequest';

/** Routes that a device needs to join. */
const FOR_STRANGERS = new Set(['/join', '/api/devices/joining', '/authority.crt', '/404']);

export const onRequest = defineMiddleware(async ({ request, url, routePattern, locals }, next) => {
  let response: Response;
  locals.caller ??= null;
  try {
    refuseForeign(request, locals.caller !== null);
    // The door lets a stranger's request through by its address; here is what that address leads to.
    const stranger = locals.caller !== null && locals.caller.device === null;
    if (stranger && !FOR_STRANGERS.has(routePattern)) throw notJoined();
    // The framework would resize pictures here, from addresses too; nothing of ours needs it.
    if (url.pathname === '/_image') throw notFound('such address');
    response = await currentRequest.run(
      { signal: request.signal, counted: false, waitedMs: waitedMs(request) },
      next,
    );
    response = (await wrongMethod(request, routePattern, response)) ?? response;
  } catch (error) {
    response = problemResponse(error);
  }
  response = await readably(request, response);
  addSecurityHeaders(response);
  const build = await currentBuild();
  if (build !== null && url.pathname.startsWith('/api/')) response.headers.set(BUILD_HEADER, build);
  return response;
});
