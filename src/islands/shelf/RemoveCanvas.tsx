import { Trash2 } from 'lucide-react';
import { useRef } from 'react';
import { Dialog } from '../../ui/Dialog';
import { Notice } from '../../ui/Notice';
import { useWrite } from '../writing/useWrite';

/** Takes a canvas off the shelf for good, after asking. */
export function RemoveCanvas({ id, title }: { id: string; title: string }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const { busy, fault, write } = useWrite();
  const go = () => void write('DELETE', `/api/canvases/${id}`, undefined, () => window.location.reload());
  return (
    <>
      <button
        type="button"
        className="button !px-2.5"
        aria-label={`Remove ${title}`}
        title="Remove"
        onClick={() => dialog.current?.showModal()}
      >
        <Trash2 size={19} aria-hidden />
      </button>
      <Dialog title={`Remove ${title}`} width={32} handle={dialog}>
        <p className="mb-4 text-lg">
          Remove <strong>{title}</strong> with its sheet, its chart, every counted bag and every mark? This
          cannot be undone.
        </p>
        {fault && <Notice kind="fault">{fault}</Notice>}
        <div className="flex flex-wrap gap-3">
          <button type="button" className="button" onClick={() => dialog.current?.close()}>
            Keep it
          </button>
          <button type="button" className="button !border-alarm !text-alarm" disabled={busy} onClick={go}>
            Remove it for good
          </button>
        </div>
      </Dialog>
    </>
  );
}
