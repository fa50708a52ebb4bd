import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { highestLine } from '../../core/canvas/legend';
import type { Chart } from '../../core/cells/chart';
import { countInPart } from '../../core/cells/rect';
import { learnedTrash } from '../../core/checkin/chance';
import { leftover } from '../../core/checkin/lacking';
import { inColourOrder } from '../../core/codes/colourOrder';
import { placeInWords, placesInWords } from '../../core/codes/places';
import type { LeaveRule } from '../../core/kitup/allotTask';
import { drillsToStore, type NumberedBag, numberedBags } from '../../core/kitup/amounts';
import { leftInWords, offerInWords, refillInWords, resultInWords } from '../../core/kitup/planInWords';
import { firstUses, numberOf, refillPlan, type UsePlan } from '../../core/kitup/refills';
import { sortingHelp } from '../../core/kitup/sorting';
import type { Section } from '../../core/sections/section';
import { coverFinder } from '../../core/stash/cover';
import { stashInWords } from '../../core/stash/has';
import { type Storage, slotCapacity, slotCount, slotsInOrder } from '../../core/storage/storage';
import { largest } from '../../core/words/numbers';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import { countedBags, trashRecords } from '../../data/checkin';
import type { Queries } from '../../data/engine/database';
import { undoViewOf } from '../../data/history';
import {
  type Allotted,
  allotmentOf,
  kitupPlan,
  noCasesOf,
  potFacts,
  potStatesOf,
  putAwayOf,
} from '../../data/kitup';
import { stashItems } from '../../data/stash';
import { slotsOfOthers, storagesOf, type TakenSlot, takenSlots } from '../../data/storage';
import { inTurns } from '../jobs/inTurns';
import { sectionsOf } from '../sections/view';
import type { KitupView, SlotView } from './contract';
import { casesOf, placesOf, slotKey, slotNames } from './pots';

/** What a plan is made from: the kit and how it will be used up. */
export interface KitFacts {
  legend: LegendLine[];
  /** Drills to store, by line. */
  amounts: Map<number, number>;
  here: Map<number, { drills: number; bags: number }>;
  use: UsePlan | null;
  trashShare: number;
}

export async function kitFacts(queries: Queries, canvas: Canvas): Promise<KitFacts> {
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
    use: chart && planOfUse(chart, sections, highestLine(legend)),
    trashShare: learnedTrash(await trashRecords(queries, canvas.id)).share,
  };
}

/** How the sections use up the colours, in the order of the work. */
function planOfUse(chart: Chart, sections: readonly Section[], lines: number): UsePlan {
  const inTurn = [...sections].sort((a, b) => a.order - b.order);
  return {
    perSection: inTurn.map((section) => countInPart(chart, section, lines, null)),
    numbers: inTurn.map(({ number }) => number),
  };
}

export async function kitupView(
  queries: Queries,
  canvas: Canvas,
  screenId: string | null = null,
): Promise<KitupView> {
  const facts = await kitFacts(queries, canvas);
  const { legend, amounts } = facts;
  const plan = await kitupPlan(queries, canvas.id);
  const allotted = await allotmentOf(queries, canvas.id);
  const states = await potStatesOf(queries, canvas.id);
  const inStash = coverFinder(await stashItems(queries, { shape: canvas.shape }), canvas.shape);
  const taken = await takenSlots(queries, plan?.storageIds ?? []);
  const byOthers = await slotsOfOthers(queries, canvas.id);
  const all = await storagesOf(queries);
  const cases = plan ? await casesOf(queries, plan.storageIds) : [];
  const places = placesOf(legend, cases, allotted);
  const drawn = cases.map((storage) => slotViews(storage, cases, canvas, allotted, taken));
  const pots = potsOf(allotted, drawn.flat(), amounts);
  const lyingIn = new Map(pots.flatMap((pot) => pouredInto(pot)));
  const slots = drawn.map((all) => all.map((slot) => ({ ...slot, drills: lyingIn.get(slot.place) ?? 0 })));
  const bags = allotted.length === 0 ? [] : bagsBeside(facts, pots, plan?.leave ?? 'fewest drills');
  const bagOf = new Map(bags.map((bag) => [bag.line, bag.bag]));
  const needed = new Map(legend.map((line) => [line.line, line.neededDrills]));
  const inState = (kind: string) => [...states].filter(([, state]) => state === kind).map(([line]) => line);
  const inPots = pots.length;
  return {
    noCases: await noCasesOf(queries, canvas.id),
    trashShare: facts.trashShare,
    plan: plan && {
      order: plan.order,
      leave: plan.leave,
      goals: plan.goals,
      results: plan.results.map((result) => resultInWords(result, inPots)),
      several: plan.several,
      offer: plan.offer && offerInWords(plan.offer),
    },
    storages: all.map(({ id, name, trays }) => {
      const slots = slotCount(trays);
      return { id, name, slots, free: slots - (byOthers.get(id) ?? 0) };
    }),
    cases: cases.map((storage, c) => ({ storage, slots: slots[c]! })),
    places,
    amounts: Object.fromEntries(amounts),
    bags,
    refills: refillPlan(pots, (line) => needed.get(line) ?? 0, facts.use, facts.trashShare).map((refill) =>
      refillInWords(refill, placeInWords(placesInWords(places[refill.line]!)), bagOf.get(refill.line)!),
    ),
    filled: inState('fill'),
    putAway: Object.fromEntries(await putAwayOf(queries, canvas.id)),
    leftovers: Object.fromEntries(
      legend.map(({ line, neededDrills }) => [
        line,
        leftover(facts.here.get(line)!.drills, neededDrills, facts.trashShare),
      ]),
    ),
    stash: Object.fromEntries(
      (await inTurns(legend, (line) => [line.line, stashInWords(line, inStash)] as const)).flatMap(
        ([line, words]) => (words === null ? [] : [[line, words]]),
      ),
    ),
    sorting: sortingHelp(
      legend.map(({ line, code, keyNumber, packets }) => ({
        code,
        keyNumber,
        bags: facts.here.get(line)!.bags || packets,
      })),
    ),
    history: await undoViewOf(queries, 'pot_event', canvas.id, screenId, (ids) => potFacts(queries, ids)),
  };
}

/** A slot before it is known how much of its colour lies in it. */
type DrawnSlot = Omit<SlotView, 'drills'>;

/** A colour with all its pots: their room together, and what is to be stored. */
interface PotsOfColour {
  line: number;
  capacity: number;
  drills: number;
  slots: DrawnSlot[];
}

function potsOf(
  allotted: readonly Allotted[],
  slots: readonly DrawnSlot[],
  amounts: ReadonlyMap<number, number>,
): PotsOfColour[] {
  return [...new Set(allotted.map(({ line }) => line))].flatMap((line) => {
    const drills = amounts.get(line);
    const nth = (slot: DrawnSlot) =>
      allotted.findIndex((each) => each.line === line && each.slot === slot.slot);
    const own = slots.filter((slot) => slot.line === line).sort((a, b) => nth(a) - nth(b));
    if (drills === undefined || own.length === 0) return [];
    return [{ line, capacity: own.reduce((sum, { capacity }) => sum + capacity, 0), drills, slots: own }];
  });
}

/** How many drills lie in each pot of a colour: its pots are filled one after the other, and the last holds the rest. */
function pouredInto({ drills, slots }: PotsOfColour): [place: string, drills: number][] {
  let left = drills;
  return slots.map(({ place, capacity }, i) => {
    const here = i === slots.length - 1 ? left : Math.min(left, capacity);
    left -= here;
    return [place, here];
  });
}

function slotViews(
  storage: Storage,
  cases: readonly Storage[],
  canvas: Canvas,
  allotted: readonly Allotted[],
  taken: readonly TakenSlot[],
): DrawnSlot[] {
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
  const first = use ? firstUses(use, highestLine(legend)) : [];
  const whole = inColourOrder(legend, 'code')
    .filter(({ line }) => !potted.has(line))
    .map(({ line }) => ({ line, drills: amounts.get(line)! }));
  const mostInPot = largest(
    [...potted].map((line) => amounts.get(line)!),
    0,
  );
  return numberedBags(whole, pots).map((bag) => ({
    ...bag,
    reason: bag.whole
      ? leftInWords(leave, bag.drills, firstNumber(use, first[bag.line] ?? 0), mostInPot)
      : null,
  }));
}

/** The number of the section with a turn, from 1; 0 for none. */
function firstNumber(use: UsePlan | null, turn: number): number {
  return use && turn > 0 ? numberOf(use, turn - 1) : 0;
}
