import { Notice } from '../../ui/Notice';
import type { Jobs } from './useJob';

/** Beside a button: how far its work is, with the way to end it; afterwards, what went wrong. @param words what is being done */
export function JobLine({ jobs: { running, fault, cancel }, words }: { jobs: Jobs; words: string }) {
  if (fault) return <Notice kind="fault">{fault}</Notice>;
  if (!running) return null;
  const { done, of } = running;
  return (
    <div className="flex flex-wrap items-center gap-3" role="status">
      <span className="min-w-0">
        {words}
        {of > 0 && `: ${done} of ${of}`}
      </span>
      <progress
        className="tally w-32"
        aria-label={words}
        max={of || undefined}
        value={of > 0 ? done : undefined}
      />
      <button type="button" className="button" onClick={cancel}>
        Cancel
      </button>
    </div>
  );
}
