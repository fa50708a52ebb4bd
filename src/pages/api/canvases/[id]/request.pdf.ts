import { dateInWords } from '../../../../core/words/moments';
import { inspectionPhoto } from '../../../../data/inspection';
import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { inWorker } from '../../../../server/jobs/pool';
import { requestPdfQuery } from '../../../../server/requests/contract';
import { requestView } from '../../../../server/requests/view';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { paper } = await readQuery(url, requestPdfQuery);
  const date = dateInWords(new Date());
  const { lines, photos } = await database.snapshot((queries) => requestView(queries, canvas, date));
  const jpegs: Uint8Array[] = [];
  for (const entry of photos) {
    const photo = await inspectionPhoto(database, canvas.id, entry);
    if (photo) jpegs.push(photo);
  }
  return content(
    await inWorker('requestPdf', { canvas, lines, photos: jpegs, date, paper }),
    'application/pdf',
    `${canvas.title} request.pdf`,
  );
});
