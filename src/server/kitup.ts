import { randomUUID } from 'node:crypto';
import type { Canvas } from '../core/canvas/canvas';
import type { LegendLine } from '../core/canvas/legend';
import { learnedTrash } from '../core/checkin/chance';
import { type AllotGoal, allot, type LeaveRule } from '../core/kitup/allotment';
import { drillsToStore, type NumberedBag, numberedBags } from '../core/kitup/amounts';
import { type ColourOrder, inColourOrder } from '../core/kitup/colourOrder';
import { leftInWords, refillInWords, resultInWords } from '../core/kitup/planInWords';
import { placeInWords } from '../core/kitup/pots';
import { firstUses, refillPlan, type UsePlan } from '../core/kitup/refills';
import { sortingHelp } from '../core/kitup/sorting';
import { type Storage, slotCapacity, slotsInOrder, touch } from '../core/kitup/storage';
import { countInRect } from '../core/sections/blockGrid';
import { stashInWords } from '../core/stash/has';
import { legendOf } from '../data/canvases';
import { chartOf } from '../data/chart';
import { countedBags, trashRecords } from '../data/checkin';
import type { Database, Queries } from '../data/database';
import {
  type Allotted,
  addPotEvent,
  allotmentOf,
  freeSlot,
  kitupPlan,
  type PotEvent,
  potStates,
  putKitupPlan,
  replaceAllotment,
} from '../data/kitup';
import { addStashItem, addStashMove, stashItems } from '../data/stash';
import { storagesOf, type TakenSlot, takenSlots } from '../data/storages';
import type { KitupView, SlotView } from './contract/kitup';
import { casesOf, placesOf, slotKey, slotNames } from './pots';
import { conflict, notFound, unreadable } from './problem';
import { sectionsOf } from './sections';
import { likePairsOf } from './symbolCheck';

/** What a plan is made from: the kit and how it will be used up. */
interface KitFacts {
  legend: LegendLine[];
  /** Drills to store, by line. */
  amounts: Map<number, number>;
  here: Map<number, { drills: number; bags: number }>;
  use: UsePlan | null;
  trashShare: number;
}

async function kitFacts(queries: Queries, canvas: Canvas): Promise<KitFacts> {
  const legend = await legendOf(queries, canvas.id);
  const { bags } = await countedBags(queries, canvas.id);
  const here = new Map(legend.map(({ line }) => [line, { drills: 0, bags: 0 }]));
  for (const bag of bags) {
    const sum = bag.line === null ? undefined : here.get(bag.line);
    if (!sum) continue;
    sum.drills += bag.drills;
    sum.bags++;
  }
  const chart = await chartOf(queries, canvas);
  const { sections } = await sectionsOf(queries, canvas);
  return {
    legend,
    here,
    amounts: new Map(
      legend.map((line) => [line.line, drillsToStore(line, here.get(line.line)!, canvas.packetDrills)]),
    ),
    use: chart && {
      perSection: sections.map((section) => countInRect(chart, section, legend.length, null)),
    },
    trashShare: learnedTrash(await trashRecords(queries, canvas.id)).share,
  };
}

export async function kitupView(queries: Queries, canvas: Canvas): Promise<KitupView> {
  const facts = await kitFacts(queries, canvas);
  const { legend, amounts } = facts;
  const plan = await kitupPlan(queries, canvas.id);
  const allotted = await allotmentOf(queries, canvas.id);
  const states = await potStates(queries, canvas.id);
  const stash = await stashItems(queries);
  const taken = await takenSlots(queries);
  const all = await storagesOf(queries);
  const cases = plan ? await casesOf(queries, plan.storageIds) : [];
  const places = placesOf(legend, cases, allotted);
  const slots = cases.map((storage) => slotViews(storage, cases, canvas, allotted, taken));
  const pots = slots.flat().flatMap(({ line, capacity }) => {
    const drills = line === null ? undefined : amounts.get(line);
    return line === null || drills === undefined ? [] : [{ line, capacity, drills }];
  });
  const bags = allotted.length === 0 ? [] : bagsBeside(facts, pots, plan?.leave ?? 'fewest drills');
  const bagOf = new Map(bags.map((bag) => [bag.line, bag.bag]));
  const needed = new Map(legend.map((line) => [line.line, line.neededDrills]));
  const inState = (kind: string) => [...states].filter(([, state]) => state === kind).map(([line]) => line);
  const inPots = pots.length;
  return {
    plan: plan && {
      order: plan.order,
      leave: plan.leave,
      goals: plan.goals,
      results: plan.results.map((result) => resultInWords(result, inPots)),
    },
    storages: all.map(({ id, name, trays }) => {
      const inCase = slotsInOrder(trays);
      const others = taken.filter((slot) => slot.storageId === id && slot.canvasId !== canvas.id);
      return { id, name, slots: inCase.length, free: inCase.length - others.length };
    }),
    cases: cases.map((storage, c) => ({ storage, slots: slots[c]! })),
    places,
    amounts: Object.fromEntries(amounts),
    bags,
    refills: refillPlan(pots, (line) => needed.get(line) ?? 0, facts.use, facts.trashShare).map((refill) =>
      refillInWords(refill, placeInWords(places[refill.line]!), bagOf.get(refill.line)!),
    ),
    filled: inState('fill'),
    putAway: inState('put away'),
    leftovers: Object.fromEntries(
      legend.map(({ line, neededDrills }) => [
        line,
        Math.max(0, Math.round(facts.here.get(line)!.drills * (1 - facts.trashShare)) - neededDrills),
      ]),
    ),
    stash: Object.fromEntries(
      legend.flatMap((line) => {
        const words = stashInWords(line, canvas.shape, stash);
        return words === null ? [] : [[line.line, words]];
      }),
    ),
    sorting: sortingHelp(
      legend.map(({ line, code, keyNumber, packets }) => ({
        code,
        keyNumber,
        bags: facts.here.get(line)!.bags || packets,
      })),
    ),
  };
}

function slotViews(
  storage: Storage,
  cases: readonly Storage[],
  canvas: Canvas,
  allotted: readonly Allotted[],
  taken: readonly TakenSlot[],
): SlotView[] {
  const names = slotNames(cases);
  const key = (slot: string) => slotKey(storage.id, slot);
  const mine = new Map(allotted.map((each) => [slotKey(each.storageId, each.slot), each]));
  const others = new Map(
    taken
      .filter((each) => each.canvasId !== canvas.id)
      .map((each) => [slotKey(each.storageId, each.slot), each.title]),
  );
  return slotsInOrder(storage.trays).map(({ slot, tray }) => ({
    slot: slot.id,
    tray,
    place: names.get(key(slot.id))!,
    capacity: slotCapacity(storage, storage.trays[tray]!, slot, canvas),
    line: mine.get(key(slot.id))?.line ?? null,
    locked: mine.get(key(slot.id))?.locked ?? false,
    takenBy: others.get(key(slot.id)) ?? null,
  }));
}

function bagsBeside(
  { legend, amounts, use }: KitFacts,
  pots: readonly { line: number; capacity: number; drills: number }[],
  leave: LeaveRule,
): (NumberedBag & { reason: string | null })[] {
  const potted = new Set(pots.map(({ line }) => line));
  const first = use ? firstUses(use, legend.length) : [];
  const whole = inColourOrder(legend, 'code')
    .filter(({ line }) => !potted.has(line))
    .map(({ line }) => ({ line, drills: amounts.get(line)! }));
  return numberedBags(whole, pots).map((bag) => ({
    ...bag,
    reason: bag.whole ? leftInWords(leave, bag.drills, first[bag.line] ?? 0) : null,
  }));
}

/** What the user wants of an allotment. */
export interface KitupWish {
  storageIds: string[];
  order: ColourOrder;
  leave: LeaveRule;
  goals: AllotGoal[];
  locks: { line: number; storageId: string; slot: string }[];
}

/**
 * Allots the colours of a canvas to slots and keeps the plan. Pots that are filled already stay where they are.
 * @throws Problem when a case or slot does not exist, a slot is taken, or two colours are locked to one slot
 */
export async function planKitup(database: Database, canvas: Canvas, wish: KitupWish): Promise<void> {
  await database.transaction(async (queries) => {
    const facts = await kitFacts(queries, canvas);
    const { legend, amounts } = facts;
    if (legend.length === 0) throw conflict('Pots are planned from the sheet, and this canvas has none yet.');
    const cases = await casesOf(queries, wish.storageIds);
    if (cases.length < wish.storageIds.length) throw notFound('such case');
    const others = new Set(
      (await takenSlots(queries))
        .filter(({ canvasId }) => canvasId !== canvas.id)
        .map(({ storageId, slot }) => slotKey(storageId, slot)),
    );
    const board = cases
      .flatMap((storage) => slotsInOrder(storage.trays).map((each) => ({ storage, ...each })))
      .filter(({ storage, slot }) => !others.has(slotKey(storage.id, slot.id)));
    const keys = board.map(({ storage, slot }) => slotKey(storage.id, slot.id));
    const states = await potStates(queries, canvas.id);
    const filled = (await allotmentOf(queries, canvas.id)).filter(({ line }) => states.get(line) === 'fill');
    const locked = lockedSlots(legend, keys, wish.locks, filled);
    const first = facts.use ? firstUses(facts.use, legend.length) : [];
    const { slotOf, results } = allot({
      colours: inColourOrder(legend, wish.order)
        .filter(({ line }) => states.get(line) !== 'put away')
        .map(({ line }) => ({ line, drills: amounts.get(line)!, firstUse: first[line] ?? 0 })),
      slots: board.map(({ storage, slot, tray }) => ({
        capacity: slotCapacity(storage, storage.trays[tray]!, slot, canvas),
      })),
      touching: board.flatMap((a, i) =>
        board.flatMap((b, j): [number, number][] =>
          j > i && a.storage === b.storage && a.tray === b.tray && touch(a.slot, b.slot) ? [[i, j]] : [],
        ),
      ),
      confusable: (await likePairsOf(legend)).map(({ lines }) => lines),
      goals: wish.goals,
      leave: wish.leave,
      locked,
    });
    const lockedByHand = new Set(wish.locks.map(({ line }) => line));
    await putKitupPlan(queries, canvas.id, { ...wish, results });
    await replaceAllotment(
      queries,
      canvas.id,
      [...slotOf].map(([line, at]) => ({
        line,
        storageId: board[at]!.storage.id,
        slot: board[at]!.slot.id,
        locked: lockedByHand.has(line),
      })),
    );
  });
}

/** Line → index of the slot that it must keep. @throws Problem */
function lockedSlots(
  legend: readonly LegendLine[],
  keys: readonly string[],
  locks: KitupWish['locks'],
  filled: readonly Allotted[],
): Map<number, number> {
  const codeOf = (line: number) => legend.find((each) => each.line === line)?.code;
  const locked = new Map<number, number>();
  for (const { line, storageId, slot } of filled) {
    const at = keys.indexOf(slotKey(storageId, slot));
    if (at < 0) {
      throw conflict(
        `The pot of ${codeOf(line)} is filled already. Keep its case in the plan, or take the filling back first.`,
      );
    }
    locked.set(line, at);
  }
  for (const { line, storageId, slot } of locks) {
    if (codeOf(line) === undefined) throw unreadable(`The sheet has no line ${line}.`);
    const at = keys.indexOf(slotKey(storageId, slot));
    if (at < 0) throw conflict(`The slot for ${codeOf(line)} is not free, or not in these cases.`);
    const kept = locked.get(line);
    if (kept !== undefined && kept !== at) {
      throw conflict(`The pot of ${codeOf(line)} is filled already. Take the filling back before it moves.`);
    }
    const rival = [...locked].find(([other, place]) => place === at && other !== line);
    if (rival) {
      throw conflict(`${codeOf(line)} and ${codeOf(rival[0])} cannot both have this slot.`);
    }
    locked.set(line, at);
  }
  return locked;
}

/**
 * Notes that a pot was filled, that this was a mistake, or that the pot was put away: then its leftover goes into the
 * stash and its slot is free again. The same id a second time changes nothing.
 * @throws Problem when there is no such colour, or the pot is not in the state that the event needs
 */
export async function notePot(database: Database, canvas: Canvas, event: PotEvent): Promise<void> {
  await database.transaction(async (queries) => {
    const line = (await legendOf(queries, canvas.id)).find((each) => each.line === event.line);
    if (!line) throw unreadable(`The sheet has no line ${event.line}.`);
    const before = (await potStates(queries, canvas.id)).get(event.line);
    const happenedAt = new Date().toISOString();
    if (!(await addPotEvent(queries, canvas.id, event, happenedAt))) return;
    if (before === 'put away') throw conflict(`The pot of ${line.code} is put away already.`);
    if (event.kind === 'take back' && before !== 'fill')
      throw conflict(`The pot of ${line.code} is not filled.`);
    if (event.kind !== 'put away') return;
    await freeSlot(queries, canvas.id, event.line);
    if (event.drills === 0) return;
    const { code, name, hex, finish } = line;
    const item = (await stashItems(queries)).find(
      (each) => each.code === code && each.finish === finish && each.shape === canvas.shape,
    ) ?? { id: randomUUID(), code, name, hex, finish, shape: canvas.shape };
    await addStashItem(queries, item, happenedAt);
    await addStashMove(
      queries,
      { id: randomUUID(), itemId: item.id, drills: event.drills, bagId: null },
      happenedAt,
    );
  });
}
