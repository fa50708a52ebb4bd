import { requestCsv } from '../../../../core/checkin/supplierRequest';
import { canvasEndpoint, content } from '../../../../server/endpoint';
import { dateInWords, requestView } from '../../../../server/requests';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { lines } = await requestView(database, canvas, dateInWords(new Date()));
  return content(requestCsv(canvas, lines), 'text/csv; charset=utf-8', `${canvas.title} request.csv`);
});
