import { endSitting, sittingBelongs } from '../../../../../../data/bench';
import { benchView } from '../../../../../../server/bench';
import { sittingEndSchema } from '../../../../../../server/contract/bench';
import { canvasEndpoint, isUuid, json, readJson } from '../../../../../../server/endpoint';
import { notFound } from '../../../../../../server/problem';

export const POST = canvasEndpoint(async (database, canvas, { request, params }) => {
  const sitting = params.sitting;
  const { note } = await readJson(request, sittingEndSchema);
  if (!isUuid(sitting) || !(await sittingBelongs(database, canvas.id, sitting)))
    throw notFound('such sitting');
  await endSitting(database, sitting, new Date().toISOString(), note);
  return json(await benchView(database, canvas));
});
