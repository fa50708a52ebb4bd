import { Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { Notice } from '../../ui/Notice';
import { inWords, remove } from '../writing/api';

/** Takes a canvas off the shelf for good, after asking. */
export function RemoveCanvas({ id, title }: { id: string; title: string }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [fault, setFault] = useState<string | null>(null);
  const go = async () => {
    try {
      await remove(`/api/canvases/${id}`);
      window.location.reload();
    } catch (error) {
      setFault(inWords(error));
    }
  };
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
      <dialog
        ref={dialog}
        className="slip w-[min(32rem,92vw)] backdrop:bg-black/50"
        aria-label={`Remove ${title}`}
      >
        <p className="mb-4 text-lg">
          Remove <strong>{title}</strong> with its sheet, its chart, every counted bag and every mark? This
          cannot be undone.
        </p>
        {fault && <Notice kind="fault">{fault}</Notice>}
        <div className="flex flex-wrap gap-3">
          <button type="button" className="button" onClick={() => dialog.current?.close()}>
            Keep it
          </button>
          <button type="button" className="button !border-alarm !text-alarm" onClick={go}>
            Remove it for good
          </button>
        </div>
      </dialog>
    </>
  );
}
