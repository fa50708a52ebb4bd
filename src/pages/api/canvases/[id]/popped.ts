import { runsFromCells } from '../../../../core/chart/cellRuns';
import { poppedOf } from '../../../../server/bench';
import { canvasEndpoint, json } from '../../../../server/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => {
  const cells = await poppedOf(database, canvas);
  return json({ drills: cells.length, runs: runsFromCells(cells) });
});
