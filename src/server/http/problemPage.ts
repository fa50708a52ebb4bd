import { escaped, PLAIN_PAGE_HEADERS, plainPage } from './plainPage';

/** Whether a browser asks in order to show what comes, as it does when a link is followed or an address is typed. */
export function wantsPage({ method, headers }: Request): boolean {
  if (method !== 'GET') return false;
  // Browsers say so themselves, but for those of a home network that is not trusted yet.
  const mode = headers.get('sec-fetch-mode');
  return mode === null ? (headers.get('accept') ?? '').includes('text/html') : mode === 'navigate';
}

/**
 * A refusal as a page in words, with the way back; anything else as it is.
 * @param response what was to be answered
 */
export async function readably(request: Request, response: Response): Promise<Response> {
  if (response.headers.get('content-type') !== 'application/problem+json' || !wantsPage(request))
    return response;
  const { title, detail } = (await response.json()) as { title: string; detail: string };
  const back = cameFrom(request);
  const html = plainPage(
    title,
    `<h1>${escaped(title)}</h1>
    <div class="slip alarm" role="alert"><p>${escaped(detail)}</p></div>
    <p>${back === null ? '' : `<a class="button" href="${escaped(back)}">Back to where you were</a> `}<a class="button" href="/">To the shelf</a></p>`,
    request.headers.get('cookie'),
  );
  const headers = new Headers(response.headers);
  for (const [name, value] of Object.entries(PLAIN_PAGE_HEADERS)) headers.set(name, value);
  return new Response(html, { status: response.status, headers });
}

/** The page of ours on which a link was followed, as a path; null where there was none, or it is the one asked for. */
function cameFrom(request: Request): string | null {
  const referrer = request.headers.get('referer');
  if (referrer === null || !URL.canParse(referrer)) return null;
  const { host, pathname, search } = new URL(referrer);
  const asked = new URL(request.url);
  // A path of two strokes would lead to another site.
  if (host !== request.headers.get('host') || pathname === asked.pathname || pathname.startsWith('//'))
    return null;
  return `${pathname}${search}`;
}
