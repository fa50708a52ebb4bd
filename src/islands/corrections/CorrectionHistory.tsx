import type { CorrectionsView } from '../../server/corrections/contract';
import { Notice } from '../../ui/Notice';
import { UndoButtons } from '../writing/UndoButtons';
import { useAnswer } from '../writing/useAnswer';
import { useWrite } from '../writing/useWrite';

/** What was corrected of a canvas and its colour list, and the way back. Nothing before the first correction. */
export function CorrectionHistory({ canvasId, onChanged }: { canvasId: string; onChanged: () => void }) {
  const url = `/api/canvases/${canvasId}/corrections`;
  const { answer, reload } = useAnswer<CorrectionsView>(url, ['sheet']);
  const { busy, fault, enter } = useWrite(canvasId);
  const step = (what: { undoes: string } | { redoes: string }) =>
    void enter<CorrectionsView>(url, what, () => {
      reload();
      onChanged();
    });
  if (!answer?.history.undo && !answer?.history.redo) return null;
  return (
    <div className="flex flex-col gap-2">
      <UndoButtons
        history={answer.history}
        words={({ changes }) => told(changes)}
        busy={busy}
        onUndo={(undoes) => step({ undoes })}
        onRedo={(redoes) => step({ redoes })}
      />
      {fault && <Notice kind="fault">{fault}</Notice>}
    </div>
  );
}

/** The first changes by name, the rest as a number. */
function told(changes: readonly string[]): string {
  const named = changes.slice(0, 3).join('; ');
  return changes.length > 3 ? `${named} and ${changes.length - 3} more` : named;
}
