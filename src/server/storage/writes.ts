import type { Storage } from '../../core/storage/storage';
import type { Database } from '../../data/engine/database';
import { deleteStorage, putStorage, takenSlots } from '../../data/storage';
import { conflict, notFound } from '../http/problem';

/** Keeps a case as it was drawn. @throws Problem when a slot that is in use would go */
export async function saveStorage(database: Database, storage: Storage): Promise<void> {
  await database.transaction(async (queries) => {
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
