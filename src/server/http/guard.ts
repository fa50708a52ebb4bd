import { Problem } from './problem';

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/i;
const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Refuses what a browser sends on behalf of another site. Without a log-in, the loopback address and the origin are the
 * only fence: the Host check stops a foreign name that was pointed at this machine, the origin check stops foreign pages
 * from writing.
 * @param overHome whether it came over the home network, whose door has checked the host
 * @throws Problem 403
 */
export function refuseForeign(request: Request, overHome = false): void {
  const host = request.headers.get('host') ?? '';
  if (!overHome && !LOOPBACK.test(host)) {
    throw new Problem(403, 'Not from this machine', 'Oculent answers only under localhost or 127.0.0.1.');
  }
  if (READING.has(request.method)) return;
  const site = request.headers.get('sec-fetch-site');
  const origin = request.headers.get('origin');
  const foreignSite = site !== null && site !== 'same-origin' && site !== 'none';
  const foreignOrigin = origin !== null && origin !== `${overHome ? 'https' : 'http'}://${host}`;
  if (foreignSite || foreignOrigin) {
    throw new Problem(403, 'Not from another site', 'Another web site may not change anything here.');
  }
}

const HEADERS: Record<string, string> = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  // The camera reads bags and labels.
  'permissions-policy': 'camera=(self), microphone=(), geolocation=()',
};

/** Adds the security headers; answers that are no pages get a policy that allows nothing. */
export function addSecurityHeaders(response: Response): void {
  for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
  if (!response.headers.get('content-type')?.startsWith('text/html')) {
    if (!response.headers.has('content-security-policy')) {
      response.headers.set('content-security-policy', "default-src 'none'; frame-ancestors 'none'");
    }
    if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store');
  } else if (!response.headers.has('cache-control')) {
    // Others who use this browser do not find the shelf in its memory.
    response.headers.set('cache-control', 'private, no-store');
  }
}
