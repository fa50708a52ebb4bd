import type { ColourOrder } from '../core/codes/colourOrder';
import type { AllotGoal, GoalResult, LeaveRule } from '../core/kitup/allotment';
import { type PotEventKind, type PotRow, potStates } from '../core/kitup/potLedger';
import { one, type Queries } from './engine/database';

/** How the colours of a canvas are kept. */
export interface KitupPlan {
  order: ColourOrder;
  leave: LeaveRule;
  goals: AllotGoal[];
  results: GoalResult[];
  /** Cases in the order in which they are filled. */
  storageIds: string[];
}

/** The plan of a canvas; null before the first one. */
export async function kitupPlan(queries: Queries, canvasId: string): Promise<KitupPlan | null> {
  const row = await one<{
    colour_order: ColourOrder;
    leave_rule: LeaveRule;
    goals: AllotGoal[];
    results: GoalResult[];
  }>(queries, 'select colour_order, leave_rule, goals, results from kitup_plan where canvas_id = $1', [
    canvasId,
  ]);
  if (!row) return null;
  const storages = await queries.query<{ storage_id: string }>(
    'select storage_id from kitup_storage where canvas_id = $1 order by position',
    [canvasId],
  );
  return {
    order: row.colour_order,
    leave: row.leave_rule,
    goals: row.goals,
    results: row.results,
    storageIds: storages.map(({ storage_id }) => storage_id),
  };
}

/** Puts a plan in place of the one before. Runs in the caller's transaction. */
export async function putKitupPlan(queries: Queries, canvasId: string, plan: KitupPlan): Promise<void> {
  await queries.query(
    `insert into kitup_plan (canvas_id, colour_order, leave_rule, goals, results)
     values ($1, $2, $3, $4::jsonb, $5::jsonb)
     on conflict (canvas_id) do update
     set colour_order = excluded.colour_order, leave_rule = excluded.leave_rule, goals = excluded.goals,
         results = excluded.results`,
    [canvasId, plan.order, plan.leave, JSON.stringify(plan.goals), JSON.stringify(plan.results)],
  );
  await queries.query('delete from kitup_storage where canvas_id = $1', [canvasId]);
  await queries.query(
    `insert into kitup_storage (canvas_id, storage_id, position)
     select $1, n.id, n.position - 1 from unnest($2::uuid[]) with ordinality as n (id, position)`,
    [canvasId, plan.storageIds],
  );
}

/** A colour in its slot. */
export interface Allotted {
  line: number;
  storageId: string;
  slot: string;
  locked: boolean;
}

export function allotmentOf(queries: Queries, canvasId: string): Promise<Allotted[]> {
  return queries.query<Allotted>(
    'select line, storage_id as "storageId", slot, locked from allotment where canvas_id = $1 order by line',
    [canvasId],
  );
}

/** Puts an allotment in place of the one before. Runs in the caller's transaction. */
export async function replaceAllotment(
  queries: Queries,
  canvasId: string,
  allotted: readonly Allotted[],
): Promise<void> {
  await queries.query('delete from allotment where canvas_id = $1', [canvasId]);
  await queries.query(
    `insert into allotment (canvas_id, line, storage_id, slot, locked)
     select $1, n.line, n."storageId", n.slot, n.locked
     from jsonb_to_recordset($2::jsonb) as n (line integer, "storageId" uuid, slot text, locked boolean)`,
    [canvasId, JSON.stringify(allotted)],
  );
}

/** Frees the slot of a colour. @returns the slot that it had; null where it had none */
export async function freeSlot(
  queries: Queries,
  canvasId: string,
  line: number,
): Promise<{ storageId: string; slot: string } | null> {
  return one(
    queries,
    'delete from allotment where canvas_id = $1 and line = $2 returning storage_id as "storageId", slot',
    [canvasId, line],
  );
}

/** Gives a colour its slot again. @returns false where another colour is in it, or the case is gone */
export async function takeSlot(
  queries: Queries,
  canvasId: string,
  line: number,
  { storageId, slot }: { storageId: string; slot: string },
): Promise<boolean> {
  const rows = await queries.query(
    `insert into allotment (canvas_id, line, storage_id, slot, locked)
     select $1, $2, id, $4, false from storage where id = $3 on conflict do nothing returning line`,
    [canvasId, line, storageId, slot],
  );
  return rows.length > 0;
}

/** A row of the pot ledger with what undoing it needs. */
export interface PotEvent extends PotRow {
  /** Drills that went into the stash. */
  drills: number;
  redoes: string | null;
  /** Slot that was freed when the pot was put away. */
  freed: { storageId: string; slot: string } | null;
  stashMoveId: string | null;
}

export async function addPotEvent(
  queries: Queries,
  canvasId: string,
  screenId: string | null,
  event: PotEvent,
  happenedAt: string,
): Promise<void> {
  await queries.query(
    `insert into pot_event
       (id, canvas_id, screen_id, line, happened_at, kind, drills, undoes, redoes, storage_id, slot, stash_move_id)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)`,
    [
      event.id,
      canvasId,
      screenId,
      event.line,
      happenedAt,
      event.kind,
      event.drills,
      event.undoes,
      event.redoes,
      event.freed?.storageId ?? null,
      event.freed?.slot ?? null,
      event.stashMoveId,
    ],
  );
}

export async function findPotEvent(queries: Queries, canvasId: string, id: string): Promise<PotEvent | null> {
  const row = await one<
    Omit<PotEvent, 'freed' | 'stashMoveId'> & {
      storage_id: string | null;
      slot: string | null;
      stash_move_id: string | null;
    }
  >(
    queries,
    `select id, line, kind, drills, undoes, redoes, storage_id, slot, stash_move_id
     from pot_event where canvas_id = $1 and id = $2`,
    [canvasId, id],
  );
  if (!row) return null;
  const { storage_id, slot, stash_move_id, ...event } = row;
  return {
    ...event,
    freed: storage_id === null || slot === null ? null : { storageId: storage_id, slot },
    stashMoveId: stash_move_id,
  };
}

/** What became of each pot last, by line. */
export async function potStatesOf(queries: Queries, canvasId: string): Promise<Map<number, PotEventKind>> {
  return potStates(
    await queries.query<PotRow>(
      'select id, line, kind, undoes from pot_event where canvas_id = $1 order by position',
      [canvasId],
    ),
  );
}

/** What pot events did, as far as a person is told before they are undone. */
export function potFacts(
  queries: Queries,
  ids: readonly string[],
): Promise<{ id: string; line: number; kind: PotEventKind; drills: number }[]> {
  return queries.query('select id, line, kind, drills from pot_event where id = any($1::uuid[])', [ids]);
}
