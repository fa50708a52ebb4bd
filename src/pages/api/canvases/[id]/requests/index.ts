import { legendOf } from '../../../../../data/canvases';
import { addRequestState } from '../../../../../data/requests';
import { requestStateSchema } from '../../../../../server/contract/requests';
import { canvasEndpoint, json, readJson } from '../../../../../server/endpoint';
import { unreadable } from '../../../../../server/problem';
import { dateInWords, requestView } from '../../../../../server/requests';

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
