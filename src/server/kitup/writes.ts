import { randomUUID } from 'node:crypto';
import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { type ColourOrder, inColourOrder } from '../../core/codes/colourOrder';
import { type AllotGoal, allot, type LeaveRule } from '../../core/kitup/allotment';
import { firstUses } from '../../core/kitup/refills';
import { slotCapacity, slotsInOrder, touch } from '../../core/storage/storage';
import { legendOf } from '../../data/canvas';
import type { Database } from '../../data/engine/database';
import {
  type Allotted,
  addPotEvent,
  allotmentOf,
  freeSlot,
  type PotEvent,
  potStates,
  putKitupPlan,
  replaceAllotment,
} from '../../data/kitup';
import { addStashItem, addStashMove, stashItems } from '../../data/stash';
import { takenSlots } from '../../data/storage';
import { conflict, notFound, unreadable } from '../http/problem';
import { likePairsOf } from '../symbols/view';
import { casesOf, slotKey } from './pots';
import { kitFacts } from './view';

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
