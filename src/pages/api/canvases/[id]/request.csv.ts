import { requestCsv } from '../../../../core/requests/supplierRequest';
import { dateInWords } from '../../../../core/words/moments';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { requestView } from '../../../../server/requests/view';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { lines } = await database.snapshot((queries) =>
    requestView(queries, canvas, dateInWords(new Date())),
  );
  return content(requestCsv(canvas, lines), 'text/csv; charset=utf-8', `${canvas.title} request.csv`);
});
