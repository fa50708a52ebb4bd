import { Problem, problemResponse } from './problem';

const ROUTES = import.meta.glob<Record<string, unknown>>('../../pages/api/**/*.ts');

/**
 * The framework answers 404 where a route does not know a method; that the route is there, and what it knows, is said
 * here (RFC 9110, 15.5.6). @returns null for any other answer
 */
export async function wrongMethod(
  request: Request,
  routePattern: string,
  response: Response,
): Promise<Response | null> {
  if (response.status !== 404 || response.headers.has('content-type') || !routePattern.startsWith('/api/'))
    return null;
  const load = ROUTES[`../../pages${routePattern}.ts`] ?? ROUTES[`../../pages${routePattern}/index.ts`];
  if (!load) return null;
  const known = Object.keys(await load()).filter((name) => /^[A-Z]+$/.test(name));
  if (known.length === 0 || known.includes(request.method)) return null;
  const detail = `This address does not answer ${request.method}, only ${known.join(' and ')}.`;
  const answer = problemResponse(new Problem(405, 'Not answered', detail));
  answer.headers.set('allow', known.includes('GET') ? [...known, 'HEAD'].join(', ') : known.join(', '));
  return answer;
}
