import { randomUUID } from 'node:crypto';
import { correctedItem, correctionOf } from '../../core/stash/correction';
import type { StashItem } from '../../core/stash/cover';
import { many } from '../../core/words/numbers';
import type { Database, Queries } from '../../data/engine/database';
import { standingOf } from '../../data/history';
import {
  addStashItem,
  addStashMove,
  deleteStashItem,
  findStashMove,
  isOverdrawn,
  stashItems,
  updateStashItem,
} from '../../data/stash';
import { once } from '../http/once';
import { conflict, idTaken, notFound } from '../http/problem';

/** Puts leftovers into the stash. The same request again changes nothing. @throws Problem when the id is taken */
export async function putIntoStash(
  database: Database,
  { drills, ...item }: StashItem,
  screenId: string | null = null,
): Promise<void> {
  const request = { id: item.id, what: 'stash', canvasId: null, content: { ...item, drills } };
  await once(database, request, async (queries) => {
    const now = new Date().toISOString();
    if (!(await addStashItem(queries, item, now))) throw idTaken();
    await addStashMove(queries, { id: randomUUID(), itemId: item.id, drills, bagId: null, screenId }, now);
  });
}

/**
 * Takes a move of the stash back, or makes it again. The same request again changes nothing.
 * @returns the item that it moved drills of
 * @throws Problem when it does not stand (or was not taken back), its drills were used, or the id is taken
 */
export async function undoStash(
  database: Database,
  wish: { id: string; undoes: string | null; redoes: string | null },
  screenId: string | null = null,
): Promise<string> {
  const target = (wish.undoes ?? wish.redoes)!;
  await once(database, { id: wish.id, what: 'stash', canvasId: null, content: wish }, async (queries) => {
    const move = await neededMove(queries, target);
    const standing = await standingOf(queries, 'stash_move', null, target);
    if (standing === 'unknown') throw notFound('such move of the stash');
    if (wish.undoes !== null && standing !== 'stands')
      throw conflict('This was undone already, perhaps at another screen.');
    if (wish.redoes !== null && standing !== 'taken back')
      throw conflict('This is not undone, so it cannot be redone.');
    const drills = wish.undoes === null ? move.drills : -move.drills;
    const entry = { id: wish.id, itemId: move.itemId, drills, bagId: null, screenId };
    await addStashMove(
      queries,
      { ...entry, undoes: wish.undoes, redoes: wish.redoes },
      new Date().toISOString(),
    );
    if (await isOverdrawn(queries, wish.id)) {
      throw conflict(`Drills of ${move.code} were used since, so this cannot be taken out again.`);
    }
  });
  return (await neededMove(database, target)).itemId;
}

async function neededMove(queries: Queries, id: string) {
  const move = await findStashMove(queries, id);
  if (!move) throw notFound('such move of the stash');
  return move;
}

/**
 * Corrects what an item is and how much there is of it; the difference is a move like any other.
 * @param wish `item` is the item as it shall be, `before` as it was there when the correction was begun
 * @throws Problem when there is no such item, its amount is corrected and was changed meanwhile, or the id is taken
 */
export async function correctStash(
  database: Database,
  wish: { id: string; item: StashItem; before?: Omit<StashItem, 'id'> | null },
  screenId: string | null = null,
): Promise<void> {
  const { id, item, before = null } = wish;
  await once(database, { id, what: 'stash', canvasId: null, content: item }, async (queries) => {
    const [current] = await stashItems(queries, { id: item.id });
    if (!current) throw notFound('such item in the stash');
    const drills = correctionOf(item.drills, before?.drills ?? null, current.drills);
    if (drills === null) {
      throw conflict(
        `There are ${many(current.drills)} of ${current.code} by now, and not ${many(before!.drills)}: some came or went meanwhile, perhaps at another screen. Say again how many are there, then save.`,
        { drills: current.drills },
      );
    }
    await updateStashItem(queries, correctedItem(item, before, current));
    if (drills === 0) return;
    const now = new Date().toISOString();
    await addStashMove(queries, { id: randomUUID(), itemId: item.id, drills, bagId: null, screenId }, now);
  });
}

/** Deletes an item; it is kept for a while. @throws Problem when there is none */
export async function removeStashItem(database: Database, id: string): Promise<void> {
  if (!(await deleteStashItem(database, id, new Date().toISOString())))
    throw notFound('such item in the stash');
}
