import type { CanvasFacts } from '../core/canvas/canvas';
import type { LegendLine } from '../core/canvas/legend';
import type { CellRuns } from '../core/cells/cellRuns';
import { runsFromBytes, runsToBytes } from './bench';
import { one, type Queries } from './engine/database';

/** A correction in the ledger: of the colour list, or of the canvas's own facts. */
export type Correction = {
  id: string;
  undoes: string | null;
  redoes: string | null;
} & (
  | { kind: 'list'; before: LegendLine[]; after: LegendLine[] }
  | { kind: 'canvas'; before: CanvasFacts; after: CanvasFacts }
);

export async function addCorrection(
  queries: Queries,
  canvasId: string,
  screenId: string | null,
  entry: Correction,
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into sheet_edit (id, canvas_id, screen_id, happened_at, kind, before, after, undoes, redoes)
     values ($1, $2, $3, $4, $5, $6::jsonb, $7::jsonb, $8, $9)`,
    [
      entry.id,
      canvasId,
      screenId,
      happenedAt,
      entry.kind,
      JSON.stringify(asList(entry.before)),
      JSON.stringify(asList(entry.after)),
      entry.undoes,
      entry.redoes,
    ],
  );
}

/** What a row holds is a list in either case. */
function asList(state: LegendLine[] | CanvasFacts): unknown[] {
  return Array.isArray(state) ? state : [state];
}

interface CorrectionRow {
  id: string;
  kind: Correction['kind'];
  before: unknown[];
  after: unknown[];
  undoes: string | null;
  redoes: string | null;
}

function correctionOf<Row extends CorrectionRow>(row: Row): Correction & Omit<Row, keyof CorrectionRow> {
  const { before, after } = row;
  const states = row.kind === 'list' ? { before, after } : { before: before[0], after: after[0] };
  return { ...row, ...states } as unknown as Correction & Omit<Row, keyof CorrectionRow>;
}

export async function findCorrection(
  queries: Queries,
  canvasId: string,
  id: string,
): Promise<Correction | null> {
  const row = await one<CorrectionRow>(
    queries,
    'select id, kind, before, after, undoes, redoes from sheet_edit where canvas_id = $1 and id = $2',
    [canvasId, id],
  );
  return row && correctionOf(row);
}

/** The newest corrections first, with when they were made. */
export async function corrections(
  queries: Queries,
  canvasId: string,
  limit: number,
): Promise<(Correction & { happenedAt: string })[]> {
  const rows = await queries.query<CorrectionRow & { happenedAt: string }>(
    `select id, kind, before, after, undoes, redoes, happened_at as "happenedAt"
     from sheet_edit where canvas_id = $1 order by position desc limit $2`,
    [canvasId, limit],
  );
  return rows.map(correctionOf);
}

/** Drawings of symbols go with their colour when its code or finish is corrected. */
export async function moveDrawings(
  queries: Queries,
  canvasId: string,
  before: readonly LegendLine[],
  after: readonly LegendLine[],
): Promise<void> {
  const was = new Map(before.map((colour) => [colour.line, colour]));
  const moved = after.flatMap((colour) => {
    const old = was.get(colour.line);
    const same = !old || (old.code === colour.code && old.finish === colour.finish);
    return same || old.drawing === undefined ? [] : [{ old, colour, path: old.drawing }];
  });
  // All go before any comes: two colours may have exchanged their codes.
  for (const { old } of moved) {
    await queries.query('delete from symbol_drawing where canvas_id = $1 and code = $2 and finish = $3', [
      canvasId,
      old.code,
      old.finish,
    ]);
  }
  for (const { colour, path } of moved) {
    await queries.query(
      `insert into symbol_drawing (canvas_id, code, finish, path) values ($1, $2, $3, $4)
       on conflict (canvas_id, code, finish) do update set path = excluded.path`,
      [canvasId, colour.code, colour.finish, path],
    );
  }
}

/** Colours whose pot is filled. */
export async function filledPots(queries: Queries, canvasId: string): Promise<Set<number>> {
  const rows = await queries.query<{ line: number; kind: string }>(
    `select distinct on (line) line, kind from pot_event where canvas_id = $1 order by line, position desc`,
    [canvasId],
  );
  return new Set(rows.filter(({ kind }) => kind === 'fill').map(({ line }) => line));
}

/** Marks that are rewritten at once; one by one a year of them would hold the shelf for ten seconds. */
const REWRITTEN = 500;

/** Rewrites the squares of the mark ledger and of the repairs, for a canvas that got another width. */
export async function rewriteRuns(
  queries: Queries,
  canvasId: string,
  moved: (runs: CellRuns) => number[],
): Promise<void> {
  for (let after = 0; ; ) {
    const marks = await queries.query<{ id: string; position: number; cells: Uint8Array }>(
      `select id, position::int as position, cells from mark where canvas_id = $1 and position > $2
       order by position limit $3`,
      [canvasId, after, REWRITTEN],
    );
    if (marks.length === 0) break;
    await queries.query(
      'update mark as m set cells = n.cells from unnest($1::uuid[], $2::bytea[]) as n (id, cells) where m.id = n.id',
      [marks.map(({ id }) => id), marks.map(({ cells }) => runsToBytes(moved(runsFromBytes(cells))))],
    );
    after = marks.at(-1)!.position;
  }
  const edits = await queries.query<{
    id: string;
    edits: { runs: number[] }[];
    before: { runs: number[] }[];
  }>('select id, edits, before from chart_edit where canvas_id = $1', [canvasId]);
  const all = (list: { runs: number[] }[]) =>
    JSON.stringify(list.map((edit) => ({ ...edit, runs: moved(edit.runs) })));
  for (const { id, edits: after, before } of edits) {
    await queries.query('update chart_edit set edits = $2::jsonb, before = $3::jsonb where id = $1', [
      id,
      all(after),
      all(before),
    ]);
  }
}
