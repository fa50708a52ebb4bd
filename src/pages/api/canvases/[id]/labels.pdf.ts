import { homeOrigins } from '../../../../server/devices/view';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content, originOf } from '../../../../server/http/endpoint';
import { inWorker } from '../../../../server/jobs/pool';
import { labelsQuery } from '../../../../server/labels/contract';
import { labelsToPrint } from '../../../../server/labels/view';

export const GET = canvasEndpoint(async (database, canvas, { url, request, locals }) => {
  const wish = await readQuery(url, labelsQuery);
  const print = await labelsToPrint(
    database,
    canvas,
    wish,
    homeOrigins()[0] ?? originOf(request, locals.caller !== null),
  );
  return content(await inWorker('labelsPdf', print), 'application/pdf', `${canvas.title} ${wish.format}.pdf`);
});
