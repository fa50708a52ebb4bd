import { endSitting, sittingBelongs } from '../../../../../../data/bench';
import { sittingEndSchema } from '../../../../../../server/bench/contract';
import { benchView } from '../../../../../../server/bench/view';
import { readJson } from '../../../../../../server/http/body';
import { canvasEndpoint, isUuid, json } from '../../../../../../server/http/endpoint';
import { notFound } from '../../../../../../server/http/problem';

export const POST = canvasEndpoint(async (database, canvas, { request, params }) => {
  const sitting = params.sitting;
  const { note } = await readJson(request, sittingEndSchema);
  if (!isUuid(sitting) || !(await sittingBelongs(database, canvas.id, sitting)))
    throw notFound('such sitting');
  await endSitting(database, sitting, new Date().toISOString(), note);
  return json(await benchView(database, canvas));
});
