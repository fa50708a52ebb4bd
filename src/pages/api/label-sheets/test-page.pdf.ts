import { testPage } from '../../../core/labels/pages';
import { readQuery } from '../../../server/http/body';
import { content, endpoint } from '../../../server/http/endpoint';
import { testPageQuery } from '../../../server/labels/contract';
import { drawingPdf } from '../../../server/print/drawingPdf';

export const GET = endpoint(async (_database, { url }) => {
  const { paper } = await readQuery(url, testPageQuery);
  return content(
    await drawingPdf('Test page', [testPage(paper)]),
    'application/pdf',
    `Oculent test page ${paper}.pdf`,
  );
});
