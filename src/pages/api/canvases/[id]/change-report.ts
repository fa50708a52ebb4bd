import { canvasFactsSchema } from '../../../../server/corrections/contract';
import { reportOfFacts } from '../../../../server/corrections/writes';
import { readJson } from '../../../../server/http/body';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

/** Says what a correction would cost; changes nothing. */
export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  const facts = await readJson(request, canvasFactsSchema);
  return json(await database.snapshot((queries) => reportOfFacts(queries, canvas, facts)));
});
