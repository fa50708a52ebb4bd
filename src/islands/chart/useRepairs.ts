import { useState } from 'react';
import type { Chart } from '../../core/cells/chart';
import { applyEdit, type CellEdit, inverseOf } from '../../core/chart/edit';
import type { RepairView } from '../../server/chart/contract';
import { useUndoKeys } from '../../ui/undoKeys';
import { inWords, NoAnswer, sendJson } from '../writing/api';

/**
 * Changes of a chart, shown at once, sent, and taken back by their inverse.
 * @param chart changed in place; `version` tells that it was
 */
export function useRepairs(canvasId: string, chart: Chart, first: RepairView) {
  const [view, setView] = useState(first);
  const [version, setVersion] = useState(0);
  const [fault, setFault] = useState<string | null>(null);
  const [undos, setUndos] = useState<CellEdit[][]>([]);
  const [redos, setRedos] = useState<CellEdit[][]>([]);

  /**
   * Shows edits at once and sends them; what the server refuses is taken back.
   * @returns the edits that undo them, none where nothing changed; null when they were refused or got no answer
   */
  const send = async (edits: CellEdit[]): Promise<CellEdit[] | null> => {
    const back = edits
      .map((edit) => inverseOf(applyEdit(chart, edit)))
      .reverse()
      .flat();
    setVersion((before) => before + 1);
    if (back.length === 0) return back;
    setFault(null);
    const id = crypto.randomUUID();
    const attempt = () =>
      sendJson<RepairView>('POST', `/api/canvases/${canvasId}/chart-edits`, { id, edits });
    try {
      // A lost answer may have been committed; the same id again changes nothing.
      const next = await attempt().catch((error: unknown) => {
        if (error instanceof NoAnswer) return attempt();
        throw error;
      });
      setView(next);
      return back;
    } catch (error) {
      for (const edit of back) applyEdit(chart, edit);
      setVersion((before) => before + 1);
      setFault(inWords(error));
      return null;
    }
  };
  const change = async (edits: CellEdit[]) => {
    const back = await send(edits);
    if (!back?.length) return;
    setUndos((before) => [...before, back]);
    setRedos([]);
  };
  const undo = async () => {
    const edits = undos.at(-1);
    if (!edits) return;
    setUndos(undos.slice(0, -1));
    const back = await send(edits);
    // What could not be taken back can be tried again.
    if (!back) setUndos((before) => [...before, edits]);
    else if (back.length > 0) setRedos((before) => [...before, back]);
  };
  const redo = async () => {
    const edits = redos.at(-1);
    if (!edits) return;
    setRedos(redos.slice(0, -1));
    const back = await send(edits);
    if (!back) setRedos((before) => [...before, edits]);
    else if (back.length > 0) setUndos((before) => [...before, back]);
  };
  useUndoKeys(
    () => void undo(),
    () => void redo(),
  );
  return {
    view,
    version,
    fault,
    setFault,
    change,
    undo,
    redo,
    canUndo: undos.length > 0,
    canRedo: redos.length > 0,
  };
}
