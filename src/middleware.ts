import { defineMiddleware } from 'astro:middleware';
import { addSecurityHeaders, refuseForeign } from './server/http/guard';
import { wrongMethod } from './server/http/methods';
import { notFound, problemResponse } from './server/http/problem';
import { currentRequest } from './server/jobs/currentRequest';

export const onRequest = defineMiddleware(async ({ request, url, routePattern }, next) => {
  let response: Response;
  try {
    refuseForeign(request);
    // The framework would resize pictures here, from addresses too; nothing of ours needs it.
    if (url.pathname === '/_image') throw notFound('such address');
    response = await currentRequest.run(request.signal, next);
    response = (await wrongMethod(request, routePattern, response)) ?? response;
  } catch (error) {
    response = problemResponse(error);
  }
  addSecurityHeaders(response);
  return response;
});
