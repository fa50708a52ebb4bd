import { defineMiddleware } from 'astro:middleware';
import { addSecurityHeaders, refuseForeign } from './server/guard';
import { problemResponse } from './server/problem';

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
