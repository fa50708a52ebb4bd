import type { ShelfEntry } from '../../server/shelf/contract';
import { useAnswer } from '../writing/useAnswer';

/** The other canvases that are being worked on, each a tap away, with where it goes on. */
export function OtherCanvases({ here }: { here: string }) {
  const { answer: others } = useAnswer<ShelfEntry[]>(`/api/canvases/${here}/others`);
  if (others === null || others.length === 0) return null;
  return (
    <nav aria-label="Other canvases on the bench" className="flex flex-col gap-2">
      {others.map(({ canvas, percent, goesOnAt }) => (
        <a key={canvas.id} className="button !justify-start !text-left" href={`/canvas/${canvas.id}/bench`}>
          <span className="min-w-0">
            <span className="block truncate" dir="auto">
              {canvas.title}
            </span>
            <span className="block truncate text-[0.95rem] font-normal text-faded">
              {percent.toFixed(2)} %{goesOnAt && `, ${goesOnAt}`}
            </span>
          </span>
        </a>
      ))}
    </nav>
  );
}
