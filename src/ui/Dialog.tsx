import { type ReactNode, type RefObject, useEffect, useId, useRef } from 'react';

/** Opens and closes a {@link Dialog} from outside. */
export type DialogHandle = RefObject<HTMLDialogElement | null>;

/** A dialog with its name above and a way out; Escape closes it too. */
export function Dialog({
  title,
  width,
  handle,
  open = false,
  onClose,
  children,
}: {
  title: ReactNode;
  /** Widest that it may be, in rem. */
  width: number;
  handle?: DialogHandle;
  /** Open from the start. */
  open?: boolean;
  onClose?: () => void;
  children: ReactNode;
}) {
  const own = useRef<HTMLDialogElement>(null);
  const dialog = handle ?? own;
  const name = useId();
  useEffect(() => {
    if (open) dialog.current?.showModal();
  }, [open, dialog]);
  return (
    <dialog
      ref={dialog}
      className="slip backdrop:bg-black/50"
      style={{ width: `min(${width}rem, 94vw)` }}
      aria-labelledby={name}
      {...(onClose ? { onClose } : {})}
    >
      <div className="mb-3 flex items-center justify-between gap-4">
        <h2 id={name} className="text-xl">
          {title}
        </h2>
        <button type="button" className="button" onClick={() => dialog.current?.close()}>
          Close
        </button>
      </div>
      {children}
    </dialog>
  );
}
