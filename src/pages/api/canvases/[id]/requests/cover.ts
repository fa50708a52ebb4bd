import { coverSchema } from '../../../../../server/contract/requests';
import { canvasEndpoint, json, readJson } from '../../../../../server/endpoint';
import { coverFromStash, dateInWords, requestView } from '../../../../../server/requests';

export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await coverFromStash(database, canvas, await readJson(request, coverSchema));
  return json(await requestView(database, canvas, dateInWords(new Date())));
});
