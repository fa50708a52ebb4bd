import type { APIContext, APIRoute } from 'astro';
import type { Canvas } from '../../core/canvas/canvas';
import { findCanvas } from '../../data/canvas';
import { claimScreen } from '../../data/devices';
import { connection } from '../../data/engine/connection';
import type { Database } from '../../data/engine/database';
import { bumpRevision } from '../../data/once';
import { currentRequest } from '../jobs/currentRequest';
import { openHub } from '../live/hub';
import { notFound, problemResponse } from './problem';

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** An endpoint that may throw a problem. */
export function endpoint(handle: (database: Database, context: APIContext) => Promise<Response>): APIRoute {
  return async (context) => {
    try {
      const database = await connection();
      await ownScreen(database, context);
      return await handle(database, context);
    } catch (error) {
      return problemResponse(error);
    }
  };
}

/** An endpoint below one canvas. */
export function canvasEndpoint(
  handle: (database: Database, canvas: Canvas, context: APIContext) => Promise<Response>,
): APIRoute {
  return endpoint(async (database, context) => {
    const canvas = await canvasById(database, context.params.id);
    // Marks say themselves whose they are, and the rest changes nothing: neither is taken for who changed something else.
    if (!mayChange(context)) return handle(database, canvas, context);
    const { locals, request } = context;
    const hub = await openHub();
    const screen = screenOf(request);
    const device = locals.caller?.device ?? null;
    const written = hub?.writing(canvas.id, { screen, device: device?.name ?? null });
    try {
      const response = await handle(database, canvas, context);
      const counted = currentRequest.getStore()?.counted ?? false;
      if (response.ok && !counted) await bumpRevision(database, canvas.id);
      return response;
    } finally {
      written?.();
    }
  });
}

/** Screens whose device is known, so that it is not noted with every write. */
const known = new Set<string>();

/** Notes which device a screen belongs to before anything is written there. */
async function ownScreen(database: Database, { request, locals }: APIContext): Promise<void> {
  const device = locals.caller?.device;
  const screen = screenOf(request);
  if (request.method === 'GET' || !device || screen === null || known.has(screen)) return;
  await claimScreen(database, screen, device.id);
  if (known.size > 10_000) known.clear();
  known.add(screen);
}

/** Requests that are no GET and yet change nothing, or only marks, which count by themselves. */
const WITHOUT_CHANGE = new Set(['marks', 'in-front', 'chart-readings', 'change-report']);

/** Whether pages that show a canvas are to look anew after a request. */
function mayChange({ request, url }: APIContext): boolean {
  if (request.method === 'GET' || request.method === 'HEAD') return false;
  return !WITHOUT_CHANGE.has(url.pathname.split('/').at(-1)!);
}

/** @throws Problem 404 */
async function canvasById(database: Database, id: string | undefined): Promise<Canvas> {
  const canvas = isUuid(id) ? await findCanvas(database, id) : null;
  if (!canvas) throw notFound('canvas');
  return canvas;
}

/**
 * The address under which a request came, port and all. Its name was checked before; the server's own idea of its
 * address knows nothing of ports.
 * @param overHome whether it came over the home network
 */
export function originOf(request: Request, overHome: boolean): string {
  return `${overHome ? 'https' : 'http'}://${request.headers.get('host') ?? 'localhost'}`;
}

/** The screen that a request comes from, as it names itself; null where it does not. */
export function screenOf(request: Request): string | null {
  const id = request.headers.get('x-oculent-screen') ?? undefined;
  return isUuid(id) ? id.toLowerCase() : null;
}

export function isUuid(text: string | undefined): text is string {
  return text !== undefined && UUID.test(text);
}

/** @param tag names this state of the answer, see {@link unchanged} */
export function json(value: unknown, status = 200, tag: string | null = null): Response {
  const headers: Record<string, string> = { 'content-type': 'application/json' };
  if (tag !== null) headers.etag = `"${tag}"`;
  return new Response(JSON.stringify(value), { status, headers });
}

/** The short answer to who has this state already (RFC 9110, If-None-Match); null for all others. */
export function unchanged(request: Request, tag: string): Response | null {
  if (request.headers.get('if-none-match') !== `"${tag}"`) return null;
  return new Response(null, { status: 304, headers: { etag: `"${tag}"` } });
}

/** Text as RFC 8187 writes it (3.2.1): browsers end a name at a quotation mark that is not escaped, before its ending. */
function inHeader(text: string): string {
  return encodeURIComponent(text).replace(
    /['()*]/g,
    (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`,
  );
}

/** A binary or text answer; `filename` makes browsers save it under that name. */
export function content(body: Uint8Array | string, type: string, filename?: string): Response {
  const headers: Record<string, string> = { 'content-type': type };
  if (filename) {
    const plain = filename.replace(/[^\w.-]+/g, '-');
    headers['content-disposition'] =
      `attachment; filename="${plain}"; filename*=UTF-8''${inHeader(filename)}`;
  }
  return new Response(typeof body === 'string' ? body : Uint8Array.from(body), { headers });
}
