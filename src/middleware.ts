import { defineMiddleware } from 'astro:middleware';
import { addSecurityHeaders, refuseForeign } from './server/http/guard';
import { problemResponse } from './server/http/problem';

export const onRequest = defineMiddleware(async ({ request }, next) => {
  let response: Response;
  try {
    refuseForeign(request);
    response = await next();
  } catch (error) {
    response = problemResponse(error);
  }
  addSecurityHeaders(response);
  return response;
});
