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
  const response = content(await inWorker('labelsSvg', { print, page: wish.page }), 'image/svg+xml');
  // Opened by itself, the sheet needs the fonts that it carries, and nothing else.
  response.headers.set(
    'content-security-policy',
    "default-src 'none'; style-src 'unsafe-inline'; font-src data:; frame-ancestors 'none'",
  );
  return response;
});
