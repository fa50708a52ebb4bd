import { bitmapOf } from '../../../../data/bench';
import { ledgerHeads } from '../../../../data/live';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { stampText } from '../../../../server/live/hub';

/** What is laid; `x-oculent-stamp` says up to which mark, for who follows the events from there. */
export const GET = canvasEndpoint(async (database, canvas) => {
  const { laid, stamp } = await database.snapshot(async (queries) => {
    const heads = await ledgerHeads(queries, canvas.id);
    return {
      laid: await bitmapOf(queries, canvas.id, canvas.width * canvas.height),
      stamp: stampText({ revision: heads?.revision ?? 0, position: heads?.marks ?? 0 }),
    };
  });
  const answer = content(laid, 'application/octet-stream');
  answer.headers.set('x-oculent-stamp', stamp);
  return answer;
});
