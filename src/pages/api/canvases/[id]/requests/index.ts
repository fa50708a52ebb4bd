import { dateInWords } from '../../../../../core/words/moments';
import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../../server/http/endpoint';
import { requestStateSchema } from '../../../../../server/requests/contract';
import { requestView } from '../../../../../server/requests/view';
import { noteRequestState } from '../../../../../server/requests/writes';

export const GET = canvasEndpoint(async (database, canvas) =>
  json(await database.snapshot((queries) => requestView(queries, canvas, dateInWords(new Date())))),
);

/** Says how far the request for one colour has come. */
export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await noteRequestState(database, canvas, await readJson(request, requestStateSchema));
  return json(
    await database.snapshot((queries) => requestView(queries, canvas, dateInWords(new Date()))),
    201,
  );
});
