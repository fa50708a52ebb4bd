import type { Canvas } from '../../core/canvas/canvas';
import type { Database } from '../../data/engine/database';
import { addInspectionEntry, type InspectionEntry } from '../../data/inspection';
import { once } from '../http/once';

/** Writes an entry into the log of the canvas. The same request again changes nothing. @throws Problem when the id is taken */
export async function noteInspection(
  database: Database,
  canvas: Canvas,
  entry: Omit<InspectionEntry, 'hasPhoto' | 'happenedAt'>,
): Promise<void> {
  const request = { id: entry.id, what: 'inspection', canvasId: canvas.id, content: entry };
  await once(database, request, (queries) =>
    addInspectionEntry(queries, canvas.id, { ...entry, happenedAt: new Date().toISOString() }),
  );
}
