import { archiveOf } from '../../../../server/archive/archiveOut';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { asJob } from '../../../../server/jobs/jobs';

export const GET = canvasEndpoint(async (database, canvas, { request }) => {
  const zip = await asJob(request, (job) => archiveOf(database, canvas, new Date(), job));
  return content(zip, 'application/zip', `${canvas.title}.zip`);
});
