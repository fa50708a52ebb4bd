import type { Database, Queries } from '../../data/engine/database';
import { bumpRevision, digestOf, type NamedRequest, noteRequest } from '../../data/once';
import { currentRequest } from '../jobs/currentRequest';
import { idTaken } from './problem';

/**
 * Does the work of a request in one transaction, and only once: the same id with the same content again changes nothing.
 * @param answer read at the end of that transaction, whether the work was done now or before
 * @throws Problem 409 when the id stands for something else
 */
export async function once<Answer = void>(
  database: Database,
  { content, ...request }: Omit<NamedRequest, 'digest'> & { content: unknown },
  work: (queries: Queries) => Promise<void>,
  answer?: (queries: Queries) => Promise<Answer>,
): Promise<Answer> {
  return database.transaction(async (queries) => {
    const state = await noteRequest(queries, { ...request, digest: digestOf(content) });
    if (state === 'other') throw idTaken();
    const current = currentRequest.getStore();
    // What is done a second time changes nothing, so nobody is told.
    if (current && request.canvasId !== null) current.counted = true;
    if (state === 'new') {
      try {
        await work(queries);
      } catch (error) {
        // An id from before requests were noted.
        if ((error as { code?: unknown } | null)?.code === '23505') throw idTaken();
        throw error;
      }
      if (request.canvasId !== null) await bumpRevision(queries, request.canvasId);
    }
    return answer?.(queries) as Answer;
  });
}
