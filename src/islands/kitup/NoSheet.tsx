/** What to do first where there is no sheet yet. */
export function NoSheet({ canvasId }: { canvasId: string }) {
  return (
    <p className="slip max-w-xl text-lg">
      Pots, labels and symbols go by the colour list.{' '}
      <a className="underline" href={`/canvas/${canvasId}/checkin/sheet`}>
        Read the colour list
      </a>{' '}
      first.
    </p>
  );
}
