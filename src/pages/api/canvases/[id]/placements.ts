import { readQuery } from '../../../../server/http/body';
import { canvasEndpoint, content } from '../../../../server/http/endpoint';
import { placementsQuery } from '../../../../server/placing/contract';
import { placements } from '../../../../server/placing/view';

/** Seconds of the search for a whole canvas where nothing is said. */
const USUAL_SECONDS = 5;

export const GET = canvasEndpoint(async (database, canvas, { url }) => {
  const { section, borders, wishes, seconds } = await readQuery(url, placementsQuery);
  const limit = seconds ?? (section === undefined ? USUAL_SECONDS : null);
  return content(
    await placements(database, canvas, { section, borders, wishes, seconds: limit }),
    'application/json',
  );
});
