import { contentsInWords } from '../../core/backups/contents';
import type { BackupView } from '../../server/backups/contract';
import { Dialog } from '../../ui/Dialog';

/** Says what restoring or deleting does before it is done. */
export function AskDialog({
  backup,
  what,
  made,
  onClose,
  onYes,
}: {
  backup: BackupView;
  what: 'restore' | 'delete';
  made: string;
  onClose: () => void;
  onYes: () => void;
}) {
  if (what === 'delete') {
    return (
      <Dialog title={`Delete the backup made ${made}`} width={34} open onClose={onClose}>
        <p>{contentsInWords(backup.contents)} It is gone for good; your shelf stays as it is.</p>
        <button type="button" className="button mt-4 !border-alarm !text-alarm" onClick={onYes}>
          Delete for good
        </button>
      </Dialog>
    );
  }
  return (
    <Dialog title={`Restore the backup made ${made}`} width={34} open onClose={onClose}>
      <p>{contentsInWords(backup.contents)}</p>
      <p className="mt-2">
        Canvases and leftovers that are on the shelf already stay as they are. What is missing comes back. To
        have an older state of a canvas, delete the canvas for good first.
      </p>
      <button type="button" className="button button-main mt-4" onClick={onYes}>
        Restore what is missing
      </button>
    </Dialog>
  );
}
