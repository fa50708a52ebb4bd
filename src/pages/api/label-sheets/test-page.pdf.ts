import { testPage } from '../../../core/kitup/labels/pages';
import { testPageQuery } from '../../../server/contract/labels';
import { drawingPdf } from '../../../server/drawingPdf';
import { content, endpoint, readQuery } from '../../../server/endpoint';

export const GET = endpoint(async (_database, { url }) => {
  const { paper } = await readQuery(url, testPageQuery);
  return content(
    await drawingPdf('Test page', [testPage(paper)]),
    'application/pdf',
    `Oculent test page ${paper}.pdf`,
  );
});
