import type { Finish } from '../core/colour/finish';
import type { Queries } from './engine/database';

type Colour = { code: string; finish: Finish };

/** Keeps the drawing of a colour's symbol. @param path SVG path in a box of 100 × 100 */
export async function putDrawing(
  queries: Queries,
  canvasId: string,
  { code, finish }: Colour,
  path: string,
): Promise<void> {
  await queries.query(
    `insert into symbol_drawing (canvas_id, code, finish, path) values ($1, $2, $3, $4)
     on conflict (canvas_id, code, finish) do update set path = excluded.path`,
    [canvasId, code, finish, path],
  );
}

export async function removeDrawing(
  queries: Queries,
  canvasId: string,
  { code, finish }: Colour,
): Promise<void> {
  await queries.query('delete from symbol_drawing where canvas_id = $1 and code = $2 and finish = $3', [
    canvasId,
    code,
    finish,
  ]);
}

/** Lines whose lid carries a warning, and the line that each is taken for. */
export async function lidMarks(queries: Queries, canvasId: string): Promise<Map<number, number>> {
  const rows = await queries.query<{ line: number; other: number }>(
    'select line, other_line as other from lid_mark where canvas_id = $1 order by line',
    [canvasId],
  );
  return new Map(rows.map(({ line, other }) => [line, other]));
}

/** @param other null takes the mark off */
export async function putLidMark(
  queries: Queries,
  canvasId: string,
  line: number,
  other: number | null,
): Promise<void> {
  await queries.query('delete from lid_mark where canvas_id = $1 and line = $2', [canvasId, line]);
  if (other !== null) {
    await queries.query('insert into lid_mark (canvas_id, line, other_line) values ($1, $2, $3)', [
      canvasId,
      line,
      other,
    ]);
  }
}
