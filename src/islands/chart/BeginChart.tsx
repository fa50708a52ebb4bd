import { Notice } from '../../ui/Notice';
import { useWrite } from '../writing/useWrite';

/** Where there is no chart: read one, or begin an empty one and type its rows. */
export function BeginChart({ canvasId }: { canvasId: string }) {
  const { fault, busy, write } = useWrite(canvasId);
  const begin = () => write('POST', `/api/canvases/${canvasId}/chart`, {}, () => window.location.reload());
  return (
    <div className="slip flex max-w-xl flex-col gap-3">
      <p className="text-lg">
        There is no chart to repair yet. Read it from a file; if you have none, type its symbols row by row,
        as they are printed.
      </p>
      {fault && <Notice kind="fault">{fault}</Notice>}
      <div className="flex flex-wrap gap-3">
        <a className="button button-main" href={`/canvas/${canvasId}/chart/read`}>
          Read a chart
        </a>
        <button type="button" className="button" disabled={busy} onClick={() => void begin()}>
          Type it row by row
        </button>
      </div>
    </div>
  );
}
