/** A refusal by the server, in its own words. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly more: Record<string, unknown>,
  ) {
    super(detail);
  }
}

/** Sent when no answer came at all: the server is stopped or the connection is gone. */
export class NoAnswer extends Error {
  constructor() {
    super('Oculent does not answer. Is it still running? What you see has not been saved yet.');
  }
}

async function ask(url: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(url, init);
  } catch {
    throw new NoAnswer();
  }
  if (response.ok) return response;
  const problem = (await response.json().catch(() => ({}))) as Record<string, unknown>;
  const detail =
    typeof problem.detail === 'string' ? problem.detail : `The server answered ${response.status}.`;
  throw new ApiProblem(response.status, detail, problem);
}

export async function getJson<Answer>(url: string): Promise<Answer> {
  return (await (await ask(url)).json()) as Answer;
}

export async function getBytes(url: string): Promise<Uint8Array> {
  return new Uint8Array(await (await ask(url)).arrayBuffer());
}

export async function sendJson<Answer>(method: 'POST' | 'PUT', url: string, body: unknown): Promise<Answer> {
  const init = { method, body: JSON.stringify(body), headers: { 'content-type': 'application/json' } };
  return (await (await ask(url, init)).json()) as Answer;
}

export async function sendFile<Answer>(
  method: 'POST' | 'PUT',
  url: string,
  file: Blob,
  type: string,
): Promise<Answer> {
  return (await (await ask(url, { method, body: file, headers: { 'content-type': type } })).json()) as Answer;
}

/** Removes something and gives the view that is left. */
export async function removeWithAnswer<Answer>(url: string): Promise<Answer> {
  return (await (await ask(url, { method: 'DELETE' })).json()) as Answer;
}

export async function remove(url: string): Promise<void> {
  await ask(url, { method: 'DELETE' });
}

/** What went wrong, as a sentence to show. */
export function inWords(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
