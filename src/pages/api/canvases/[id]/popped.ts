import { runsFromCells } from '../../../../core/cells/cellRuns';
import { poppedOf } from '../../../../server/bench/view';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => {
  const cells = await poppedOf(database, canvas);
  return json({ drills: cells.length, runs: runsFromCells(cells) });
});
