import { theMachineClock } from './machineClock';
import { theProgram } from './program';
import { theScreen } from './screen';

/** A refusal by the server, in its own words. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(detail);
  }
}

/** Thrown when no answer came at all: the server is stopped or the connection is gone. */
export class NoAnswer extends Error {
  constructor() {
    super('Oculent does not answer. Is it still running? What you see has not been saved yet.');
  }
}

/** A write without an answer for so long counts as lost; its id makes trying again safe. */
export const WRITE_TIMEOUT_MS = 30_000;

/** @param screen the one that asks; this one, where nothing is said */
async function ask(url: string, init: RequestInit = {}, screen?: string): Promise<Response> {
  const headers = new Headers(init.headers);
  const own = screen ?? theScreen().own();
  headers.set('x-oculent-screen', typeof own === 'string' ? own : await own);
  const askedAt = Date.now();
  let response: Response;
  try {
    response = await fetch(url, { ...init, headers });
  } catch {
    throw new NoAnswer();
  }
  theMachineClock().heard(response.headers.get('date'), askedAt);
  theProgram().heard(response.headers.get('x-oculent-build'));
  if (response.ok || response.status === 304) return response;
  const problem = (await response.json().catch(() => ({}))) as Record<string, unknown>;
  const detail =
    typeof problem.detail === 'string' ? problem.detail : `The server answered ${response.status}.`;
  throw new ApiProblem(response.status, detail, problem);
}

/** The whole of an answer: one that breaks off, or takes too long, is none. */
async function whole<Body>(body: Promise<Body>): Promise<Body> {
  try {
    return await body;
  } catch {
    throw new NoAnswer();
  }
}

export async function getJson<Answer>(url: string): Promise<Answer> {
  return (await whole((await ask(url)).json())) as Answer;
}

/** What is laid, with the place in the ledger up to which that is. */
export async function getBitmap(canvasId: string): Promise<{ laid: Uint8Array; position: number }> {
  const response = await ask(`/api/canvases/${canvasId}/bitmap`);
  const position = Number(/-(\d+)$/.exec(response.headers.get('x-oculent-stamp') ?? '')?.[1] ?? 0);
  return { laid: new Uint8Array(await whole(response.arrayBuffer())), position };
}

export async function getBytes(url: string): Promise<Uint8Array> {
  return new Uint8Array(await whole((await ask(url)).arrayBuffer()));
}

export type WriteMethod = 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/**
 * Sends a write and gives its answer; null where the answer is empty.
 * @param more `keepalive`: also while the page is left; `screen`: the one where it was made, if not this one; `waitedMs`: how
 * long ago that was
 */
export async function sendJson<Answer>(
  method: WriteMethod,
  url: string,
  body?: unknown,
  {
    screen,
    waitedMs,
    ...more
  }: Pick<RequestInit, 'keepalive'> & { screen?: string | undefined; waitedMs?: number } = {},
): Promise<Answer> {
  const headers: Record<string, string> = {};
  if (waitedMs !== undefined) headers['x-oculent-waited'] = String(Math.max(0, Math.round(waitedMs)));
  if (body !== undefined) headers['content-type'] = 'application/json';
  const sent = body === undefined ? { headers } : { body: JSON.stringify(body), headers };
  const init = { ...more, method, signal: AbortSignal.timeout(WRITE_TIMEOUT_MS), ...sent };
  const response = await ask(url, init, screen);
  return (response.status === 204 ? null : await whole(response.json())) as Answer;
}

/** @param file null where the server has it already */
export async function sendFile<Answer>(
  method: 'POST' | 'PUT',
  url: string,
  file: Blob | null,
  type: string,
  signal: AbortSignal | null = null,
): Promise<Answer> {
  const init = { method, body: file, signal, headers: { 'content-type': type } };
  return (await whole((await ask(url, init)).json())) as Answer;
}

/** A file with the name that the server gives it. */
export async function getFile(url: string, signal: AbortSignal): Promise<{ blob: Blob; name: string }> {
  const response = await ask(url, { signal });
  const said = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get('content-disposition') ?? '')?.[1];
  return { blob: await whole(response.blob()), name: said ? decodeURIComponent(said) : 'file' };
}

/** What went wrong, as a sentence to show. */
export function inWords(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
