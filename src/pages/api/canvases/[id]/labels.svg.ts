import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { notFound } from '../../../../server/http/problem';
import { labelsQuery } from '../../../../server/labels/contract';
import { labelDrawings } from '../../../../server/labels/view';
import { drawingSvg } from '../../../../server/print/drawingSvg';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const wish = await readQuery(url, labelsQuery);
  const pages = await labelDrawings(database, canvas, wish, url.origin);
  const page = pages[wish.page - 1];
  if (!page) throw notFound('such page of labels');
  const response = content(await drawingSvg(page), 'image/svg+xml');
  // Opened by itself, the sheet needs the fonts that it carries, and nothing else.
  response.headers.set(
    'content-security-policy',
    "default-src 'none'; style-src 'unsafe-inline'; font-src data:; frame-ancestors 'none'",
  );
  return response;
});
