import { useState } from 'react';
import { momentInWords } from '../../core/words/moments';
import { Notice } from '../../ui/Notice';
import { useWrite } from '../writing/useWrite';

interface DeletedCanvas {
  id: string;
  title: string;
  deletedAt: string;
}

/** Canvases that were deleted and are still kept; each can be brought back. */
export function Deleted({ first, days }: { first: DeletedCanvas[]; days: number }) {
  const [kept, setKept] = useState(first);
  const { busy, fault, write } = useWrite();
  if (kept.length === 0) return null;
  return (
    <details className="slip mt-8 max-w-xl !py-2">
      <summary className="min-h-11 py-2 font-semibold">
        {kept.length === 1 ? '1 deleted canvas' : `${kept.length} deleted canvases`}, kept for {days} days
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
