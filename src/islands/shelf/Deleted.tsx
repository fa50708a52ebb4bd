import { useState } from 'react';
import type { DeletedThing } from '../../core/shelf/deleted';
import { momentInWords } from '../../core/words/moments';
import { Notice } from '../../ui/Notice';
import { useWrite } from '../writing/useWrite';

/** What was deleted and is still kept; each can be brought back, which shows the page anew. */
export function Deleted({
  first,
  days,
  one,
  several,
}: {
  first: Pick<DeletedThing, 'id' | 'title' | 'deletedAt'>[];
  days: number;
  /** What they are, as in `1 deleted canvas`. */
  one: string;
  several: string;
}) {
  const [kept, setKept] = useState(first);
  const { busy, fault, write } = useWrite();
  if (kept.length === 0) return null;
  return (
    <details className="slip mt-8 max-w-xl !py-2">
      <summary className="min-h-11 py-2 font-semibold">
        {kept.length} deleted {kept.length === 1 ? one : several}, kept for {days} days
      </summary>
      {fault && <Notice kind="fault">{fault}</Notice>}
      <ul className="flex flex-col divide-y divide-line">
        {kept.map(({ id, title, deletedAt }) => (
          <li key={id} className="flex flex-wrap items-center gap-3 py-2">
            <span className="grow">
              <span className="font-semibold">{title}</span>, deleted{' '}
              {momentInWords(new Date(deletedAt), new Date())}
            </span>
            <button
              type="button"
              className="button"
              disabled={busy}
              onClick={() =>
                void write('POST', `/api/deleted/${id}`, undefined, () => window.location.reload())
              }
            >
              Bring back<span className="sr-only"> {title}</span>
            </button>
            <button
              type="button"
              className="button !border-alarm !text-alarm"
              disabled={busy}
              onClick={() =>
                void write('DELETE', `/api/deleted/${id}`, undefined, () =>
                  setKept((all) => all.filter((each) => each.id !== id)),
                )
              }
            >
              Delete for good<span className="sr-only"> {title}</span>
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
