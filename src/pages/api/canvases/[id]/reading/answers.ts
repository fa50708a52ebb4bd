import { readJson } from '../../../../../server/http/body';
import { canvasEndpoint, json, screenOf } from '../../../../../server/http/endpoint';
import { readingAnswerSchema } from '../../../../../server/reading/contract';
import { answersView } from '../../../../../server/reading/view';
import { answerSquares } from '../../../../../server/reading/writes';

/** Enters what somebody says of squares in doubt, or takes that back. */
export const POST = canvasEndpoint(async (database, canvas, { request }) => {
  await answerSquares(database, canvas, await readJson(request, readingAnswerSchema), screenOf(request));
  return json(await answersView(database, canvas, screenOf(request)), 201);
});
