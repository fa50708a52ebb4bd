import type { ColourOrder } from '../core/codes/colourOrder';
import type { AllotGoal, GoalResult, LeaveRule } from '../core/kitup/allotment';
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
  for (const [position, id] of plan.storageIds.entries()) {
    await queries.query('insert into kitup_storage (canvas_id, storage_id, position) values ($1, $2, $3)', [
      canvasId,
      id,
      position,
    ]);
  }
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
  for (const { line, storageId, slot, locked } of allotted) {
    await queries.query(
      'insert into allotment (canvas_id, line, storage_id, slot, locked) values ($1, $2, $3, $4, $5)',
      [canvasId, line, storageId, slot, locked],
    );
  }
}

/** Frees the slot of a colour. */
export async function freeSlot(queries: Queries, canvasId: string, line: number): Promise<void> {
  await queries.query('delete from allotment where canvas_id = $1 and line = $2', [canvasId, line]);
}

export type PotEventKind = 'fill' | 'take back' | 'put away';

export interface PotEvent {
  id: string;
  line: number;
  kind: PotEventKind;
  /** Drills that went into the stash. */
  drills: number;
}

/** @returns false where this id is in the ledger already, which then stays as it is */
export async function addPotEvent(
  queries: Queries,
  canvasId: string,
  event: PotEvent,
  happenedAt: string,
): Promise<boolean> {
  const added = await queries.query(
    `insert into pot_event (id, canvas_id, line, happened_at, kind, drills) values ($1, $2, $3, $4, $5, $6)
     on conflict (id) do nothing returning id`,
    [event.id, canvasId, event.line, happenedAt, event.kind, event.drills],
  );
  return added.length > 0;
}

/** What became of each pot last, by line. */
export async function potStates(queries: Queries, canvasId: string): Promise<Map<number, PotEventKind>> {
  const rows = await queries.query<{ line: number; kind: PotEventKind }>(
    'select line, kind from pot_event where canvas_id = $1 order by position',
    [canvasId],
  );
  return new Map(rows.map(({ line, kind }) => [line, kind]));
}
