/** Said where a station needs the chart and the canvas has none. */
export function NoChart({ canvasId, what }: { canvasId: string; what: string }) {
  return (
    <div className="slip max-w-xl">
      <p className="mb-3 text-lg">{what}</p>
      <a className="button button-main" href={`/canvas/${canvasId}/chart/read`}>
        Read a chart
      </a>
    </div>
  );
}
