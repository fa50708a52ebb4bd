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
  return content(await drawingSvg(page), 'image/svg+xml');
});
