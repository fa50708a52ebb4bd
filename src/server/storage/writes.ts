import { isDeepStrictEqual } from 'node:util';
import type { Storage } from '../../core/storage/storage';
import type { Database } from '../../data/engine/database';
import { deleteStorage, putStorage, storagesOf, takenSlots } from '../../data/storage';
import { conflict, notFound } from '../http/problem';

/**
 * Keeps a case as it was drawn; one that was deleted is there again.
 * @param before as it was when its drawing was begun; undefined to draw over whatever is there
 * @throws Problem when a slot that is in use would go, or the case was redrawn or deleted meanwhile
 */
export async function saveStorage(database: Database, storage: Storage, before?: unknown): Promise<void> {
  await database.transaction(async (queries) => {
    const [now] = await storagesOf(queries, [storage.id]);
    // The same request again changes nothing.
    if (isDeepStrictEqual(now, storage)) return;
    if (before !== undefined && !isDeepStrictEqual(now, before)) {
      throw conflict(
        now
          ? 'This case was changed on another screen meanwhile.'
          : 'This case was deleted on another screen meanwhile.',
      );
    }
    const slots = new Set(storage.trays.flatMap((tray) => tray.slots.map(({ id }) => id)));
    const lost = (await takenSlots(queries, [storage.id])).find(({ slot }) => !slots.has(slot));
    if (lost) {
      throw conflict(
        `A slot that you erased holds ${lost.code ?? 'a colour'} of ${lost.title}. Put that elsewhere first.`,
      );
    }
    await putStorage(queries, storage, new Date().toISOString());
  });
}

/** Deletes a case; it is kept for a while. @throws Problem when there is no such case, or something is in it */
export async function removeStorage(database: Database, id: string): Promise<void> {
  await database.transaction(async (queries) => {
    const [held] = await takenSlots(queries, [id]);
    if (held) throw conflict(`This case still holds colours of ${held.title}. Plan them elsewhere first.`);
    if (!(await deleteStorage(queries, id, new Date().toISOString()))) throw notFound('such case');
  });
}
