import { dateInWords } from '../../../../../core/words/moments';
import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../../server/http/endpoint';
import { coverSchema } from '../../../../../server/requests/contract';
import { requestView } from '../../../../../server/requests/view';
import { coverFromStash } from '../../../../../server/requests/writes';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await coverFromStash(database, canvas, await readJson(request, coverSchema), screenOf(request));
  return json(
    await database.snapshot((queries) => requestView(queries, canvas, dateInWords(new Date()))),
    201,
  );
});
