import { inspectionPhoto } from '../../../../data/inspection';
import { requestPdfQuery } from '../../../../server/contract/requests';
import { canvasEndpoint, content, readQuery } from '../../../../server/endpoint';
import { requestPdf } from '../../../../server/requestPdf';
import { dateInWords, requestView } from '../../../../server/requests';

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { paper } = await readQuery(url, requestPdfQuery);
  const date = dateInWords(new Date());
  const { lines, photos } = await requestView(database, canvas, date);
  const jpegs: Uint8Array[] = [];
  for (const entry of photos) {
    const photo = await inspectionPhoto(database, canvas.id, entry);
    if (photo) jpegs.push(photo);
  }
  return content(
    await requestPdf(canvas, lines, jpegs, date, paper),
    'application/pdf',
    `${canvas.title} request.pdf`,
  );
});
