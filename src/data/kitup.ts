import type { ColourOrder } from '../core/codes/colourOrder';
import type { AllotGoal, GoalResult, LeaveRule } from '../core/kitup/allotTask';
import { type PotEventKind, type PotRow, potStates, putAwayDrills } from '../core/kitup/potLedger';
import type { SeveralOffer } from '../core/kitup/severalPots';
import { one, type Queries } from './engine/database';

/** How the colours of a canvas are kept. */
export interface KitupPlan {
  order: ColourOrder;
  leave: LeaveRule;
  goals: AllotGoal[];
  results: GoalResult[];
  /** Whether pots left over take what overflows. */
  several: boolean;
  /** What a second pot for some colours brings; null where it brings nothing. */
  offer: SeveralOffer | null;
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
    several: boolean;
    offer: SeveralOffer | null;
  }>(
    queries,
    'select colour_order, leave_rule, goals, results, several, offer from kitup_plan where canvas_id = $1',
    [canvasId],
  );
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
    several: row.several,
    offer: row.offer,
    storageIds: storages.map(({ storage_id }) => storage_id),
  };
}

/** Puts a plan in place of the one before. Runs in the caller's transaction. */
export async function putKitupPlan(queries: Queries, canvasId: string, plan: KitupPlan): Promise<void> {
  await queries.query(
    `insert into kitup_plan (canvas_id, colour_order, leave_rule, goals, results, several, offer)
     values ($1, $2, $3, $4::jsonb, $5::jsonb, $6, $7::jsonb)
     on conflict (canvas_id) do update
     set colour_order = excluded.colour_order, leave_rule = excluded.leave_rule, goals = excluded.goals,
         results = excluded.results, several = excluded.several, offer = excluded.offer`,
    [
      canvasId,
      plan.order,
      plan.leave,
      JSON.stringify(plan.goals),
      JSON.stringify(plan.results),
      plan.several,
      plan.offer && JSON.stringify(plan.offer),
    ],
  );
  await queries.query('delete from kitup_storage where canvas_id = $1', [canvasId]);
  await queries.query(
    `insert into kitup_storage (canvas_id, storage_id, position)
     select $1, n.id, n.position - 1 from unnest($2::uuid[]) with ordinality as n (id, position)`,
    [canvasId, plan.storageIds],
  );
}

/** A colour in one of its slots. */
export interface Allotted {
  line: number;
  /** From 1, in the order in which a colour's pots are filled. */
  nth: number;
  storageId: string;
  slot: string;
  locked: boolean;
}

export function allotmentOf(queries: Queries, canvasId: string): Promise<Allotted[]> {
  return queries.query<Allotted>(
    'select line, nth, storage_id as "storageId", slot, locked from allotment where canvas_id = $1 order by line, nth',
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
    `insert into allotment (canvas_id, line, nth, storage_id, slot, locked)
     select $1, n.line, n.nth, n."storageId", n.slot, n.locked
     from jsonb_to_recordset($2::jsonb)
       as n (line integer, nth integer, "storageId" uuid, slot text, locked boolean)`,
    [canvasId, JSON.stringify(allotted)],
  );
}

/** A slot of a case. */
export interface SlotOfCase {
  storageId: string;
  slot: string;
}

/** Frees the slots of a colour. @returns those that it had, in the order in which they are filled */
export async function freeSlots(queries: Queries, canvasId: string, line: number): Promise<SlotOfCase[]> {
  const rows = await queries.query<SlotOfCase & { nth: number }>(
    `delete from allotment where canvas_id = $1 and line = $2
     returning storage_id as "storageId", slot, nth`,
    [canvasId, line],
  );
  return rows.sort((a, b) => a.nth - b.nth).map(({ storageId, slot }) => ({ storageId, slot }));
}

/** Gives a colour its slots again. @returns false where another colour is in one of them, or a case is gone */
export async function takeSlots(
  queries: Queries,
  canvasId: string,
  line: number,
  slots: readonly SlotOfCase[],
): Promise<boolean> {
  const rows = await queries.query(
    `insert into allotment (canvas_id, line, nth, storage_id, slot, locked)
     select $1, $2, n.nth, s.id, n.slot, false
     from unnest($3::uuid[], $4::text[]) with ordinality as n (storage_id, slot, nth)
     join storage s on s.id = n.storage_id on conflict do nothing returning line`,
    [canvasId, line, slots.map(({ storageId }) => storageId), slots.map(({ slot }) => slot)],
  );
  return rows.length === slots.length;
}

/** A row of the pot ledger with what undoing it needs. */
export interface PotEvent extends PotRow {
  /** Drills that went into the stash. */
  drills: number;
  redoes: string | null;
  /** Slots that were freed when the pot was put away. */
  freed: SlotOfCase[];
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
       (id, canvas_id, screen_id, line, happened_at, kind, drills, undoes, redoes, freed, stash_move_id)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10::jsonb, $11)`,
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
      JSON.stringify(event.freed),
      event.stashMoveId,
    ],
  );
}

export function findPotEvent(queries: Queries, canvasId: string, id: string): Promise<PotEvent | null> {
  return one(
    queries,
    `select id, line, kind, drills, undoes, redoes, freed, stash_move_id as "stashMoveId"
     from pot_event where canvas_id = $1 and id = $2`,
    [canvasId, id],
  );
}

/** The pot ledger of a canvas, oldest first. */
export function potRows(queries: Queries, canvasId: string): Promise<(PotRow & { drills: number })[]> {
  return queries.query(
    'select id, line, kind, drills, undoes from pot_event where canvas_id = $1 order by position',
    [canvasId],
  );
}

/** What became of each pot last, by line. */
export async function potStatesOf(queries: Queries, canvasId: string): Promise<Map<number, PotEventKind>> {
  return potStates(await potRows(queries, canvasId));
}

/** Leftover drills of each pot that was put away, as they were said last, by line. */
export async function putAwayOf(queries: Queries, canvasId: string): Promise<Map<number, number>> {
  return putAwayDrills(await potRows(queries, canvasId));
}

/** What pot events did, as far as a person is told before they are undone. */
export function potFacts(
  queries: Queries,
  ids: readonly string[],
): Promise<{ id: string; line: number; kind: PotEventKind; drills: number }[]> {
  return queries.query('select id, line, kind, drills from pot_event where id = any($1::uuid[])', [ids]);
}

/** Whether a canvas is worked straight from its bags. */
export async function noCasesOf(queries: Queries, canvasId: string): Promise<boolean> {
  const row = await one<{ none: boolean }>(queries, 'select no_cases as none from canvas where id = $1', [
    canvasId,
  ]);
  return row?.none ?? false;
}

export async function putNoCases(queries: Queries, canvasId: string, none: boolean): Promise<void> {
  await queries.query('update canvas set no_cases = $2, revision = revision + 1 where id = $1', [
    canvasId,
    none,
  ]);
}
