import { readdir } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join, relative, sep } from 'node:path';
import send from 'send';

/** Answers a request for a file; any other goes on to `next`. */
export type Files = (request: IncomingMessage, response: ServerResponse, next: () => void) => void;

/**
 * The built files of the pages.
 * @param directory in which they lie; what is laid there later is none of theirs
 */
export async function filesIn(directory: string): Promise<Files> {
  const entries = await readdir(directory, { recursive: true, withFileTypes: true });
  const known = new Set(
    entries
      .filter((entry) => entry.isFile())
      .map((entry) => `/${relative(directory, join(entry.parentPath, entry.name)).split(sep).join('/')}`),
  );
  return (request, response, next) => {
    const path = (request.url ?? '').split('?', 1)[0]!;
    if (!known.has(path) || (request.method !== 'GET' && request.method !== 'HEAD')) return next();
    send(request, path, { root: directory, cacheControl: false })
      .on('headers', () => {
        response.setHeader('x-content-type-options', 'nosniff');
        response.setHeader('cross-origin-resource-policy', 'same-origin');
        if (path === '/service.js') response.setHeader('cache-control', 'no-cache');
        // Built files carry a hash of their content in the name.
        if (path.startsWith('/_astro/')) {
          response.setHeader('cache-control', 'public, max-age=31536000, immutable');
        }
      })
      .on('error', ({ status }: { status?: number }) => {
        // Mostly because it was removed since the start.
        if (response.headersSent) response.destroy();
        else response.writeHead(status ?? 500, { 'cache-control': 'no-store' }).end();
      })
      .pipe(response);
  };
}
