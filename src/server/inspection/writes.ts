import type { Canvas } from '../../core/canvas/canvas';
import type { Database } from '../../data/engine/database';
import { addInspectionEntry, type InspectionEntry, inspectionEntries } from '../../data/inspection';
import { once } from '../http/once';
import { conflict } from '../http/problem';

/** An entry as it is asked for. */
export type InspectionWish = Pick<InspectionEntry, 'id' | 'kind' | 'note' | 'widthCm' | 'heightCm'>;

/** Writes an entry into the log of the canvas. The same request again changes nothing. @throws Problem when the id is taken */
export async function noteInspection(
  database: Database,
  canvas: Canvas,
  entry: InspectionWish,
): Promise<void> {
  const request = { id: entry.id, what: 'inspection', canvasId: canvas.id, content: entry };
  await once(database, request, (queries) =>
    addInspectionEntry(queries, canvas.id, { ...entry, happenedAt: new Date().toISOString() }),
  );
}

/**
 * Corrects an entry; its photo and its date stay. The same request again changes nothing.
 * @throws Problem when it is not there or was corrected meanwhile, or the id is taken
 */
export async function correctInspection(
  database: Database,
  canvas: Canvas,
  replaces: string,
  entry: InspectionWish,
): Promise<void> {
  const request = { id: entry.id, what: 'inspection', canvasId: canvas.id, content: { ...entry, replaces } };
  await once(database, request, async (queries) => {
    const before = (await inspectionEntries(queries, canvas.id)).find(({ id }) => id === replaces);
    if (!before || before.removedAt !== null)
      throw conflict('This entry was corrected or deleted meanwhile, perhaps at another screen.');
    await addInspectionEntry(queries, canvas.id, { ...entry, happenedAt: before.happenedAt }, replaces);
  });
}
