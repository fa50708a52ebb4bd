import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine } from '../../core/canvas/legend';
import { type ColourOrder, inColourOrder } from '../../core/codes/colourOrder';
import type { AllotGoal, AllotTask, LeaveRule } from '../../core/kitup/allotTask';
import type { PotEventKind } from '../../core/kitup/potLedger';
import { lastOfPot, potStates } from '../../core/kitup/potLedger';
import { firstUses } from '../../core/kitup/refills';
import type { BothAllotments } from '../../core/kitup/severalPots';
import { offerOf } from '../../core/kitup/severalPots';
import type { StashItem } from '../../core/stash/cover';
import { type Storage, slotCapacity, slotsInOrder, touchingPairs } from '../../core/storage/storage';
import { legendOf } from '../../data/canvas';
import type { Database, Queries } from '../../data/engine/database';
import { standingOf } from '../../data/history';
import {
  type Allotted,
  addPotEvent,
  allotmentOf,
  findPotEvent,
  freeSlots,
  type PotEvent,
  potRows,
  potStatesOf,
  putAwayOf,
  putKitupPlan,
  replaceAllotment,
  takeSlots,
} from '../../data/kitup';
import { addStashItem, addStashMove, findStashMove, isOverdrawn, stashItems } from '../../data/stash';
import { type TakenSlot, takenSlots } from '../../data/storage';
import { once } from '../http/once';
import { conflict, notFound, unreadable } from '../http/problem';
import { inWorker } from '../jobs/pool';
import { likePairsOf } from '../symbols/view';
import { casesOf, slotKey } from './pots';
import { type KitFacts, kitFacts } from './view';

/** What the user wants of an allotment. */
export interface KitupWish {
  storageIds: string[];
  order: ColourOrder;
  leave: LeaveRule;
  goals: AllotGoal[];
  several: boolean;
  locks: { line: number; storageId: string; slot: string }[];
}

/** What an allotment is made from, as the database has it at one moment. */
interface AllotFacts {
  kit: KitFacts;
  cases: Storage[];
  taken: TakenSlot[];
  states: Map<number, PotEventKind>;
  allotted: Allotted[];
}

/** What is to be allotted. */
interface AllotGround {
  /** Free slots of the wished cases, in their order. */
  slots: { storageId: string; slot: string }[];
  task: Omit<AllotTask, 'confusable'>;
}

/** Others may fill pots while it is worked out; then it is worked out again. */
const MOST_TRIES = 3;

/**
 * Allots the colours of a canvas to slots and keeps the plan. Pots that are filled already stay where they are.
 * @throws Problem when a case or slot does not exist, a slot is taken, or two colours are locked to one slot
 */
export async function planKitup(database: Database, canvas: Canvas, wish: KitupWish): Promise<void> {
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    const facts = await database.snapshot((queries) => factsOf(queries, canvas, wish));
    const ground = groundOf(facts, canvas, wish);
    const confusable = (await likePairsOf(facts.kit.legend)).map(({ lines }) => lines);
    const both = await inWorker('allotBoth', { ...ground.task, confusable });
    const kept = await database.transaction(async (queries) => {
      const now = await factsOf(queries, canvas, wish);
      // Only what the plan was made from counts: meanwhile somebody may go on counting bags.
      const same =
        isDeepStrictEqual(now.kit.legend, facts.kit.legend) &&
        isDeepStrictEqual(groundOf(now, canvas, wish), ground);
      if (!same) return false;
      await keepPlan(queries, canvas, wish, ground, both);
      return true;
    });
    if (kept) return;
  }
  throw conflict('Pots changed while they were planned, again and again. Try once more.');
}

async function factsOf(queries: Queries, canvas: Canvas, wish: KitupWish): Promise<AllotFacts> {
  const kit = await kitFacts(queries, canvas);
  if (kit.legend.length === 0)
    throw conflict('Pots are planned from the colour list, and this canvas has none yet.');
  const cases = await casesOf(queries, wish.storageIds);
  if (cases.length < wish.storageIds.length) throw notFound('such case');
  return {
    kit,
    cases,
    taken: await takenSlots(queries, wish.storageIds),
    states: await potStatesOf(queries, canvas.id),
    allotted: await allotmentOf(queries, canvas.id),
  };
}

/** Works out of the facts what is to be allotted, while the database answers others. @throws Problem */
function groundOf(
  { kit: { legend, amounts, use }, cases, taken, states, allotted }: AllotFacts,
  canvas: Canvas,
  wish: KitupWish,
): AllotGround {
  const others = new Set(
    taken
      .filter(({ canvasId }) => canvasId !== canvas.id)
      .map(({ storageId, slot }) => slotKey(storageId, slot)),
  );
  const board = cases
    .flatMap((storage) => slotsInOrder(storage.trays).map((each) => ({ storage, ...each })))
    .filter(({ storage, slot }) => !others.has(slotKey(storage.id, slot.id)));
  const keys = board.map(({ storage, slot }) => slotKey(storage.id, slot.id));
  const filled = allotted.filter(({ line }) => states.get(line) === 'fill');
  const first = use ? firstUses(use, highestLine(legend)) : [];
  return {
    slots: board.map(({ storage, slot }) => ({ storageId: storage.id, slot: slot.id })),
    task: {
      colours: inColourOrder(legend, wish.order)
        .filter(({ line }) => states.get(line) !== 'put away')
        .map(({ line }) => ({ line, drills: amounts.get(line)!, firstUse: first[line] ?? 0 })),
      slots: board.map(({ storage, slot, tray }) => ({
        capacity: slotCapacity(storage, storage.trays[tray]!, slot, canvas),
      })),
      touching: touchingPairs(board),
      goals: wish.goals,
      leave: wish.leave,
      locked: lockedSlots(legend, keys, wish.locks, filled),
    },
  };
}

async function keepPlan(
  queries: Queries,
  canvas: Canvas,
  wish: KitupWish,
  { slots }: AllotGround,
  both: BothAllotments,
): Promise<void> {
  const lockedByHand = new Set(wish.locks.map(({ line }) => line));
  const { slotsOf, results } = (wish.several && both.several) || both.one;
  await putKitupPlan(queries, canvas.id, { ...wish, results, offer: offerOf(both) });
  await replaceAllotment(
    queries,
    canvas.id,
    [...slotsOf].flatMap(([line, own]) =>
      own.map((at, i) => ({ line, nth: i + 1, ...slots[at]!, locked: lockedByHand.has(line) })),
    ),
  );
}

/** Line → indices of the slots that it must keep. @throws Problem */
function lockedSlots(
  legend: readonly LegendLine[],
  keys: readonly string[],
  locks: KitupWish['locks'],
  filled: readonly Allotted[],
): Map<number, number[]> {
  const codeOf = (line: number) => legend.find((each) => each.line === line)?.code;
  const locked = new Map<number, number[]>();
  const keep = (line: number, at: number) => {
    const own = locked.get(line) ?? [];
    if (!own.includes(at)) locked.set(line, [...own, at]);
  };
  const isFilled = new Set(filled.map(({ line }) => line));
  for (const { line, storageId, slot } of filled) {
    const at = keys.indexOf(slotKey(storageId, slot));
    if (at < 0) {
      throw conflict(
        `The pot of ${codeOf(line)} is filled already. Keep its case in the plan, or undo the filling first.`,
      );
    }
    keep(line, at);
  }
  for (const { line, storageId, slot } of locks) {
    if (codeOf(line) === undefined) throw unreadable(`The colour list has no colour number ${line}.`);
    const at = keys.indexOf(slotKey(storageId, slot));
    if (at < 0) throw conflict(`The slot for ${codeOf(line)} is not free, or not in these cases.`);
    if (isFilled.has(line) && !locked.get(line)!.includes(at)) {
      throw conflict(`The pot of ${codeOf(line)} is filled already. Undo the filling before it moves.`);
    }
    const rival = [...locked].find(([other, own]) => own.includes(at) && other !== line);
    if (rival) {
      throw conflict(`${codeOf(line)} and ${codeOf(rival[0])} cannot both have this slot.`);
    }
    keep(line, at);
  }
  return locked;
}

/** What is noted of a pot: something new, or an earlier event taken back or done again. */
export interface PotRequest {
  id: string;
  line: number | null;
  kind: PotEventKind | null;
  /** Leftover drills that go into the stash. */
  drills: number;
  undoes?: string | null;
  redoes?: string | null;
}

/**
 * Notes that a pot was filled, that this was a mistake, or that the pot was put away: then its leftover goes into the
 * stash and its slot is free again. Undo gives both back. The same request a second time changes nothing.
 * @throws Problem when there is no such colour, the pot is not in the state that the event needs, or the id is taken
 */
export async function notePot(
  database: Database,
  canvas: Canvas,
  wish: PotRequest,
  screenId: string | null = null,
): Promise<void> {
  const request = { id: wish.id, what: 'pot', canvasId: canvas.id, content: wish };
  await once(database, request, async (queries) => {
    const happenedAt = new Date().toISOString();
    const { id, undoes = null, redoes = null } = wish;
    if (undoes !== null) {
      await undoPot(queries, canvas, { id, undoes }, screenId, happenedAt);
      return;
    }
    const again = redoes === null ? null : await takenBack(queries, canvas, redoes);
    const { line, kind, drills } = again ?? wish;
    if (line === null || kind === null)
      throw unreadable('Say which colour it is, and what became of its pot.');
    await notePotIn(queries, canvas, { line, kind, drills }, screenId, { id, redoes });
  });
}

/**
 * Notes within a transaction what became of a pot; see {@link notePot}.
 * @throws Problem when there is no such colour, or the pot is not in the state that the event needs
 */
export async function notePotIn(
  queries: Queries,
  canvas: Canvas,
  { line, kind, drills }: { line: number; kind: PotEventKind; drills: number },
  screenId: string | null,
  { id, redoes }: { id: string; redoes: string | null } = { id: randomUUID(), redoes: null },
): Promise<void> {
  const happenedAt = new Date().toISOString();
  const legend = await legendOf(queries, canvas.id);
  const colour = legend.find((each) => each.line === line);
  if (!colour) throw unreadable(`The colour list has no colour number ${line}.`);
  const before = (await potStatesOf(queries, canvas.id)).get(line);
  if (before === 'put away' && kind !== 'amount')
    throw conflict(`The pot of ${colour.code} is put away already.`);
  if (before !== 'put away' && kind === 'amount')
    throw conflict(`The pot of ${colour.code} is not put away, so it has no leftover yet.`);
  if (kind === 'take back' && before !== 'fill') throw conflict(`The pot of ${colour.code} is not filled.`);
  const event: PotEvent = { id, line, kind, drills, undoes: null, redoes, freed: [], stashMoveId: null };
  if (kind === 'put away') {
    event.freed = await freeSlots(queries, canvas.id, line);
    if (drills > 0) event.stashMoveId = await intoStash(queries, colour, canvas.shape, drills, happenedAt);
  }
  if (kind === 'amount') {
    const more = drills - ((await putAwayOf(queries, canvas.id)).get(line) ?? 0);
    if (more !== 0) event.stashMoveId = await intoStash(queries, colour, canvas.shape, more, happenedAt);
    if (event.stashMoveId && (await isOverdrawn(queries, event.stashMoveId))) {
      throw conflict(`The stash no longer has these drills of ${colour.code}; they were used elsewhere.`);
    }
  }
  await addPotEvent(queries, canvas.id, screenId, event, happenedAt);
}

/**
 * Takes back within a transaction that a pot was put away, with what was corrected of its leftover since.
 * @throws Problem when it is not put away, or its drills or slots are used elsewhere by now
 */
export async function undoPutAway(
  queries: Queries,
  canvas: Canvas,
  line: number,
  screenId: string | null,
): Promise<void> {
  const happenedAt = new Date().toISOString();
  for (;;) {
    const rows = await potRows(queries, canvas.id);
    const last = lastOfPot(rows, line);
    // Whatever was noted before that stays, such as that the pot was filled.
    if (!last || potStates(rows).get(line) !== 'put away') break;
    await undoPot(queries, canvas, { id: randomUUID(), undoes: last.id }, screenId, happenedAt);
    if (last.kind === 'put away') return;
  }
  const code = (await legendOf(queries, canvas.id)).find((each) => each.line === line)?.code;
  throw conflict(
    `The leftovers of ${code ?? 'this colour'} are not in the stash; perhaps that was undone at another screen.`,
  );
}

async function takenBack(queries: Queries, canvas: Canvas, id: string): Promise<PotEvent> {
  const event = await findPotEvent(queries, canvas.id, id);
  if (!event || (await standingOf(queries, 'pot_event', canvas.id, id)) !== 'taken back') {
    throw conflict('This is not undone, so it cannot be redone.');
  }
  return event;
}

/** Takes an event back: a slot that it freed, and drills that it put into the stash, return. */
async function undoPot(
  queries: Queries,
  canvas: Canvas,
  { id, undoes }: { id: string; undoes: string },
  screenId: string | null,
  happenedAt: string,
): Promise<void> {
  const event = await findPotEvent(queries, canvas.id, undoes);
  const standing = await standingOf(queries, 'pot_event', canvas.id, undoes);
  if (!event || standing === 'unknown') throw notFound('such event of a pot');
  if (standing !== 'stands') throw conflict('This was undone already, perhaps at another screen.');
  if (!(await isLastOfPot(queries, canvas, event))) {
    throw conflict('This pot was changed since. Undo that first.');
  }
  if (!(await takeSlots(queries, canvas.id, event.line, event.freed))) {
    throw conflict('Its slot holds another colour now, or its case is gone. Plan the pots again instead.');
  }
  const move = event.stashMoveId && (await findStashMove(queries, event.stashMoveId));
  let stashMoveId: string | null = null;
  if (move) {
    stashMoveId = randomUUID();
    const back = { id: stashMoveId, itemId: move.itemId, drills: -move.drills, bagId: null };
    await addStashMove(queries, back, happenedAt);
    if (await isOverdrawn(queries, stashMoveId)) {
      throw conflict(`The stash no longer has these drills of ${move.code}; they were used elsewhere.`);
    }
  }
  await addPotEvent(
    queries,
    canvas.id,
    screenId,
    { ...event, id, undoes, redoes: null, freed: [], stashMoveId },
    happenedAt,
  );
}

/** Whether nothing else became of a pot since an event that stands. */
async function isLastOfPot(queries: Queries, canvas: Canvas, event: PotEvent): Promise<boolean> {
  const last = lastOfPot(await potRows(queries, canvas.id), event.line);
  return last?.id === event.id;
}

/** @param drills below 0 where fewer were left than was said @returns id of the move that took the drills in */
async function intoStash(
  queries: Queries,
  { code, name, hex, finish }: LegendLine,
  shape: Canvas['shape'],
  drills: number,
  happenedAt: string,
): Promise<string> {
  const same = (each: StashItem) => each.finish === finish && each.shape === shape;
  const item = (await stashItems(queries, { code })).find(same) ?? {
    id: randomUUID(),
    code,
    name,
    hex,
    finish,
    shape,
  };
  await addStashItem(queries, item, happenedAt);
  const id = randomUUID();
  await addStashMove(queries, { id, itemId: item.id, drills, bagId: null }, happenedAt);
  return id;
}
