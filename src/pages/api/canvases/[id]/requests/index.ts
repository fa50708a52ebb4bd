import { legendOf } from '../../../../../data/canvas';
import { addRequestState } from '../../../../../data/requests';
import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../../server/http/endpoint';
import { unreadable } from '../../../../../server/http/problem';
import { requestStateSchema } from '../../../../../server/requests/contract';
import { dateInWords, requestView } from '../../../../../server/requests/view';

export const GET = canvasEndpoint(async (database, canvas) =>
  json(await requestView(database, canvas, dateInWords(new Date()))),
);

/** Says how far the request for one colour has come. */
export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const entry = await readJson(request, requestStateSchema);
  if (!(await legendOf(database, canvas.id)).some((line) => line.line === entry.line)) {
    throw unreadable(`The sheet has no line ${entry.line}.`);
  }
  await addRequestState(database, canvas.id, entry, new Date().toISOString());
  return json(await requestView(database, canvas, dateInWords(new Date())));
});
