import { createHash } from 'node:crypto';
import { one, type Queries } from './engine/database';

/** A request by the id that its sender gave it. */
export interface NamedRequest {
  id: string;
  /** The kind of request, so that no id serves two. */
  what: string;
  /** Null where it belongs to no canvas. */
  canvasId: string | null;
  /** All that it asks for, as {@link digestOf} gives it. */
  digest: string;
}

/** SHA-256 of what a request asks for. @param content bytes, or what JSON can hold */
export function digestOf(content: unknown): string {
  const bytes = content instanceof Uint8Array ? content : JSON.stringify(content);
  return createHash('sha256').update(bytes).digest('base64');
}

/**
 * Notes a request, so that it is done once however often it comes. Runs in the caller's transaction, ahead of its work.
 * @returns `new` for one that is to be done, `known` for one that was done already, `other` where its id stands for
 * something else
 */
export async function noteRequest(
  queries: Queries,
  request: NamedRequest,
): Promise<'new' | 'known' | 'other'> {
  const added = await queries.query(
    `insert into known_request (id, what, digest, canvas_id) values ($1, $2, $3, $4)
     on conflict (id) do nothing returning id`,
    [request.id, request.what, request.digest, request.canvasId],
  );
  return added.length > 0 ? 'new' : knownAs(queries, request);
}

/** How a request with this id is known; `new` where it is not. */
export async function knownAs(queries: Queries, request: NamedRequest): Promise<'new' | 'known' | 'other'> {
  const known = await one<{ what: string; digest: string; canvas_id: string | null }>(
    queries,
    'select what, digest, canvas_id from known_request where id = $1',
    [request.id],
  );
  if (!known) return 'new';
  const same =
    known.what === request.what && known.canvas_id === request.canvasId && known.digest === request.digest;
  return same ? 'known' : 'other';
}

/** Tells pages of a canvas that what they show may have changed. */
export async function bumpRevision(queries: Queries, canvasId: string): Promise<void> {
  await queries.query('update canvas set revision = revision + 1 where id = $1', [canvasId]);
}

export async function revisionOf(queries: Queries, canvasId: string): Promise<number> {
  const row = await one<{ revision: number }>(queries, 'select revision from canvas where id = $1', [
    canvasId,
  ]);
  return row?.revision ?? 0;
}

/** A word that changes with every change of the canvas, its marks included; and what its header says of it. */
export async function stampOf(
  queries: Queries,
  canvasId: string,
): Promise<{ stamp: string; laid: number; drills: number }> {
  const row = await one<{ revision: number; marks: number; laid: number; drills: number }>(
    queries,
    `select revision, coalesce((select max(position) from mark where canvas_id = $1), 0)::int as marks,
            coalesce((select laid from progress_cache where canvas_id = $1), 0) as laid,
            coalesce((select drills from chart where canvas_id = $1), width * height) as drills
     from canvas where id = $1`,
    [canvasId],
  );
  const { revision, marks, laid, drills } = row ?? { revision: 0, marks: 0, laid: 0, drills: 0 };
  return { stamp: `${revision}-${marks}`, laid, drills };
}
