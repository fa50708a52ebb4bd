import type { RanOut } from '../core/requests/ranOut';
import type { RequestState } from '../core/requests/supplierRequest';
import type { Queries } from './engine/database';

/** The newest state of each line that was ever asked for. */
export async function requestStates(queries: Queries, canvasId: string): Promise<Map<number, RequestState>> {
  const rows = await queries.query<{ line: number; state: RequestState }>(
    'select line, state from request_state where canvas_id = $1 order by position',
    [canvasId],
  );
  return new Map(rows.map((row) => [row.line, row.state]));
}

/** The last report of each colour that ran out at the bench. */
export async function ranOutReports(queries: Queries, canvasId: string): Promise<Map<number, RanOut>> {
  const rows = await queries.query<RanOut & { line: number }>(
    `select line, happened_at as "happenedAt", left_drills as "leftDrills", to_lay as "toLay"
     from ran_out where canvas_id = $1 order by position`,
    [canvasId],
  );
  return new Map(rows.map(({ line, ...report }) => [line, report]));
}

export async function addRanOut(
  queries: Queries,
  canvasId: string,
  id: string,
  line: number,
  { happenedAt, leftDrills, toLay }: RanOut,
): Promise<void> {
  await queries.query(
    `insert into ran_out (id, canvas_id, line, happened_at, left_drills, to_lay) values ($1, $2, $3, $4, $5, $6)`,
    [id, canvasId, line, happenedAt, leftDrills, toLay],
  );
}

export async function addRequestState(
  queries: Queries,
  canvasId: string,
  entry: { id: string; line: number; state: RequestState },
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into request_state (id, canvas_id, line, happened_at, state) values ($1, $2, $3, $4, $5)`,
    [entry.id, canvasId, entry.line, happenedAt, entry.state],
  );
}
