import type { APIContext, APIRoute } from 'astro';
import type { InferType, Schema } from 'yup';
import type { Canvas } from '../core/canvas/canvas';
import { findCanvas } from '../data/canvases';
import { connection } from '../data/connection';
import type { Database } from '../data/database';
import { notFound, Problem, problemResponse } from './problem';

const MAX_JSON_BYTES = 8_000_000;
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** An endpoint that may throw a problem. */
export function endpoint(handle: (database: Database, context: APIContext) => Promise<Response>): APIRoute {
  return async (context) => {
    try {
      return await handle(await connection(), context);
    } catch (error) {
      return problemResponse(error);
    }
  };
}

/** An endpoint below one canvas. */
export function canvasEndpoint(
  handle: (database: Database, canvas: Canvas, context: APIContext) => Promise<Response>,
): APIRoute {
  return endpoint(async (database, context) =>
    handle(database, await canvasById(database, context.params.id), context),
  );
}

/** @throws Problem 404 */
async function canvasById(database: Database, id: string | undefined): Promise<Canvas> {
  const canvas = isUuid(id) ? await findCanvas(database, id) : null;
  if (!canvas) throw notFound('canvas');
  return canvas;
}

export function isUuid(text: string | undefined): text is string {
  return text !== undefined && UUID.test(text);
}

/** Reads a JSON body and checks it. @throws Problem, or the schema's own error */
export async function readJson<S extends Schema>(request: Request, schema: S): Promise<InferType<S>> {
  const bytes = await readBody(request, MAX_JSON_BYTES);
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw new Problem(400, 'Not JSON', 'The body of the request is not JSON.');
  }
  return (await schema.validate(value, { abortEarly: false })) as InferType<S>;
}

/** Checks the query of a URL. */
export async function readQuery<S extends Schema>(url: URL, schema: S): Promise<InferType<S>> {
  return (await schema.validate(Object.fromEntries(url.searchParams), { abortEarly: false })) as InferType<S>;
}

/** Reads a body, and stops reading as soon as it is longer than allowed. @throws Problem 413 */
export async function readBody(request: Request, maxBytes: number): Promise<Uint8Array> {
  const tooLarge = () =>
    new Problem(
      413,
      'Too large',
      `This is more than the ${(maxBytes / 1_000_000).toLocaleString('en')} MB that we take at once.`,
    );
  if (Number(request.headers.get('content-length') ?? 0) > maxBytes) throw tooLarge();
  const parts: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  for (;;) {
    const next = await reader?.read();
    if (!next || next.done) break;
    length += next.value.byteLength;
    if (length > maxBytes) {
      await reader?.cancel();
      throw tooLarge();
    }
    parts.push(next.value);
  }
  return new Uint8Array(Buffer.concat(parts));
}

export function json(value: unknown, status = 200): Response {
  return new Response(JSON.stringify(value), { status, headers: { 'content-type': 'application/json' } });
}

/** A binary or text answer; `filename` makes browsers save it under that name. */
export function content(body: Uint8Array | string, type: string, filename?: string): Response {
  const headers: Record<string, string> = { 'content-type': type };
  if (filename) {
    const plain = filename.replace(/[^\w.-]+/g, '-');
    headers['content-disposition'] =
      `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(filename)}`;
  }
  return new Response(typeof body === 'string' ? body : Uint8Array.from(body), { headers });
}
