import { useRef } from 'react';
import { Dialog } from '../../ui/Dialog';
import { Trash2 } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { useWrite } from '../writing/useWrite';

/** Takes a canvas off the shelf, after asking; it is kept for a while. */
export function RemoveCanvas({ id, title, days }: { id: string; title: string; days: number }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const { busy, fault, write } = useWrite();
  const go = () => void write('DELETE', `/api/canvases/${id}`, undefined, () => window.location.reload());
  return (
    <>
      <button
        type="button"
        className="button !px-2.5"
        aria-label={`Delete ${title}`}
        title="Delete"
        onClick={() => dialog.current?.showModal()}
      >
        <Trash2 size={19} aria-hidden />
      </button>
      <Dialog title={`Delete ${title}`} width={32} handle={dialog}>
        <p className="mb-4 text-lg">
          Delete <strong>{title}</strong> with its colour list, its chart, every counted bag and every mark?
          It is kept for {days} days below the shelf, from where it can be brought back. Its pots are free at
          once.
        </p>
        {fault && <Notice kind="fault">{fault}</Notice>}
        <div className="flex flex-wrap gap-3">
          <button type="button" className="button" onClick={() => dialog.current?.close()}>
            Cancel
          </button>
          <button type="button" className="button !border-alarm !text-alarm" disabled={busy} onClick={go}>
            Delete
          </button>
        </div>
      </Dialog>
    </>
  );
}
