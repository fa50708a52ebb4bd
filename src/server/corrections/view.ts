import type { Canvas } from '../../core/canvas/canvas';
import { changesInWords } from '../../core/corrections/colourList';
import { factsInWords } from '../../core/corrections/facts';
import { type Correction, corrections, findCorrection } from '../../data/corrections';
import type { Queries } from '../../data/engine/database';
import { undoViewOf } from '../../data/history';
import type { CorrectionsView } from './contract';

const ENTRIES_SHOWN = 30;

export async function correctionsView(
  queries: Queries,
  canvas: Canvas,
  screenId: string | null = null,
): Promise<CorrectionsView> {
  const rows = await corrections(queries, canvas.id, ENTRIES_SHOWN);
  const undone = new Set(rows.map(({ undoes }) => undoes));
  return {
    history: await undoViewOf(queries, 'sheet_edit', canvas.id, screenId, async (ids) => {
      const offers: { id: string; changes: string[] }[] = [];
      for (const id of ids) {
        const found = await findCorrection(queries, canvas.id, id);
        if (found) offers.push({ id, changes: changesOf(found) });
      }
      return offers;
    }),
    entries: rows.map((row) => ({
      id: row.id,
      happenedAt: row.happenedAt,
      changes: changesOf(row),
      undone: undone.has(row.id),
    })),
  };
}

function changesOf(entry: Correction): string[] {
  return entry.kind === 'list'
    ? changesInWords(entry.before, entry.after)
    : factsInWords(entry.before, entry.after);
}
