import type { UndoView } from '../../core/ledger/history';
import { Redo2, Undo2 } from '../../ui/icons';
import { useUndoKeys } from '../../ui/undoKeys';
import { useUndoSteps } from './useUndoSteps';

/** Undo and redo, each named by what it takes back or does again; Ctrl+Z and Ctrl+Y do the same. */
export function UndoButtons<Offer extends { id: string }>({
  history,
  words,
  busy,
  short = false,
  onUndo,
  onRedo,
}: {
  history: UndoView<Offer>;
  /** What an entry did, such as “30 of 1313 laid”. */
  words: (offer: Offer) => string;
  busy: boolean;
  /** Where there is no room below the buttons, the words stand in their tips alone. */
  short?: boolean;
  onUndo: (id: string) => void;
  onRedo: (id: string) => void;
}) {
  const { undo, redo } = history;
  // A page comes with a history before it has said which screen it is: what that names may be another one's.
  const waits = busy || history.nameless === true;
  const step = useUndoSteps(history, waits, (which, id) => (which === 'undo' ? onUndo(id) : onRedo(id)));
  useUndoKeys(
    () => step('undo', true),
    () => step('redo', true),
  );
  const elsewhere = undo?.device ? `, done at “${undo.device}”` : ', done at another screen';
  const undoWords = undo && `${words(undo)}${undo.own || history.nameless ? '' : elsewhere}`;
  const redoWords = redo && words(redo);
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      <div className="flex gap-2">
        <button
          type="button"
          className="button"
          disabled={!undo || waits}
          title={undoWords ?? undefined}
          aria-label={undoWords ? `Undo: ${undoWords}` : 'Undo'}
          onClick={() => step('undo', false)}
        >
          <Undo2 size={20} aria-hidden /> Undo
        </button>
        <button
          type="button"
          className="button"
          disabled={!redo || waits}
          title={redoWords ?? undefined}
          aria-label={redoWords ? `Redo: ${redoWords}` : 'Redo'}
          onClick={() => step('redo', false)}
        >
          <Redo2 size={20} aria-hidden /> Redo
        </button>
      </div>
      {undoWords && !short && <p className="min-w-0 text-[0.95rem] text-faded">Last: {undoWords}</p>}
    </div>
  );
}
