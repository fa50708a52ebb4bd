import type { APIRoute } from 'astro';
import { Problem, problemResponse } from '../../server/http/problem';

/** Any address below /api that is no route. */
export const ALL: APIRoute = ({ url }) =>
  problemResponse(
    new Problem(404, 'Not here', `There is no ${url.pathname} here; docs/api.md lists what is.`),
  );
