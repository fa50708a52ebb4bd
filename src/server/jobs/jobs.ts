import { isUuid } from '../http/endpoint';
import { conflict, notFound } from '../http/problem';
import type { Job } from './pool';
import { Progress } from './progress';

/** Jobs under way by the id that the page gave them. */
const underway = new Map<string, { job: Job; controller: AbortController }>();

/**
 * Does the work of a request as a job when its address names one (`?job=` and a UUID): others can ask how far it is and
 * end it. Without, it is done all the same. The job ends with the request, also when the page is left.
 * @throws Problem when the id is no UUID, or stands for a job that runs
 */
export async function asJob<Result>(request: Request, work: (job: Job) => Promise<Result>): Promise<Result> {
  const id = new URL(request.url).searchParams.get('job');
  if (id === null) return work({ progress: new Progress(), signal: request.signal });
  if (!isUuid(id)) throw conflict('The id of a job must be a UUID.');
  if (underway.has(id)) throw conflict('A job of this id is under way.');
  const controller = new AbortController();
  const job = { progress: new Progress(), signal: AbortSignal.any([controller.signal, request.signal]) };
  underway.set(id, { job, controller });
  try {
    return await work(job);
  } finally {
    underway.delete(id);
  }
}

/** @returns steps done and in all; `of` is 0 while that is not known @throws Problem 404 */
export function jobProgress(id: string | undefined): { done: number; of: number } {
  return jobOf(id).job.progress.read();
}

/** @throws Problem 404 when it is over already */
export function endJob(id: string | undefined): void {
  jobOf(id).controller.abort();
}

function jobOf(id: string | undefined) {
  const known = id === undefined ? undefined : underway.get(id);
  if (!known) throw notFound('job under way');
  return known;
}
