import { dateInWords } from '../../../../core/words/moments';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { requestView } from '../../../../server/requests/view';

export const GET = canvasEndpoint(async (database, canvas) => {
  const { text } = await database.snapshot((queries) =>
    requestView(queries, canvas, dateInWords(new Date())),
  );
  return content(text, 'text/plain; charset=utf-8', `${canvas.title} request.txt`);
});
