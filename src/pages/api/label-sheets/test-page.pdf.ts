import { testPage } from '../../../core/labels/pages';
import { readQuery } from '../../../server/http/body';
import { content, endpoint } from '../../../server/http/endpoint';
import { inWorker } from '../../../server/jobs/pool';
import { testPageQuery } from '../../../server/labels/contract';

export const GET = endpoint(async (_database, { url }) => {
  const { paper } = await readQuery(url, testPageQuery);
  return content(
    await inWorker('drawingPdf', { title: 'Test page', pages: [testPage(paper)] }),
    'application/pdf',
    `Oculent test page ${paper}.pdf`,
  );
});
