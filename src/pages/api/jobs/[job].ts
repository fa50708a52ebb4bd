import { endpoint, json } from '../../../server/http/endpoint';
import { endJob, jobProgress } from '../../../server/jobs/jobs';

/** How far a job is. */
export const GET = endpoint(async (_database, { params }) => json(jobProgress(params.job)));

/** Ends a job; its request is refused. */
export const DELETE = endpoint(async (_database, { params }) => {
  endJob(params.job);
  return new Response(null, { status: 204 });
});
