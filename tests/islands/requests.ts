import { vi } from 'vitest';

/** A request as the server would see it. */
export interface Asked {
  method: string;
  url: string;
  body: Record<string, unknown> | null;
}

/** What answers a request. */
export type Answers = (request: Asked) => Promise<Response> | Response;

/**
 * Puts a stand-in in the place of `fetch`.
 * @param answer asked for each request anew, so that a test may change its mind
 * @returns the requests in their order
 */
export function standInFetch(answer: Answers): Asked[] {
  const asked: Asked[] = [];
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}) => {
    const body = typeof init.body === 'string' ? (JSON.parse(init.body) as Asked['body']) : null;
    const request = { method: init.method ?? 'GET', url, body };
    asked.push(request);
    init.signal?.throwIfAborted();
    return Promise.race([
      Promise.resolve(answer(request)),
      new Promise<never>((_, reject) =>
        init.signal?.addEventListener('abort', () => reject(new Error('aborted'))),
      ),
    ]);
  });
  return asked;
}

/** An answer that comes when the test says so. */
export function held() {
  let release: (response: Response) => void = () => {};
  const promise = new Promise<Response>((resolve) => {
    release = resolve;
  });
  return { promise, release };
}
