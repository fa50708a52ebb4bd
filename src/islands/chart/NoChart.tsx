import { TermsHere } from '../../ui/TermsHere';

/** Said where a station needs the chart and the canvas has none. */
export function NoChart({ canvasId, what }: { canvasId: string; what: string }) {
  return (
    <div className="slip max-w-xl">
      <p className="text-lg">{what}</p>
      <div className="mb-3">
        <TermsHere terms={['chart', 'colour list']} />
      </div>
      <a className="button button-main" href={`/canvas/${canvasId}/chart/read`}>
        Read a chart
      </a>{' '}
      <a className="button" href={`/canvas/${canvasId}/chart/photos`}>
        From photos of the canvas
      </a>
    </div>
  );
}
