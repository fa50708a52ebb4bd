import { labelsQuery } from '../../../../server/contract/labels';
import { drawingSvg } from '../../../../server/drawingSvg';
import { canvasEndpoint, content, readQuery } from '../../../../server/endpoint';
import { labelDrawings } from '../../../../server/labels';
import { notFound } from '../../../../server/problem';

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
