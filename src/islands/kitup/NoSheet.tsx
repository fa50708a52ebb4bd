/** What to do first where there is no sheet yet. */
export function NoSheet({ canvasId }: { canvasId: string }) {
  return (
    <p className="slip max-w-xl text-lg">
      Pots, labels and symbols go by the sheet.{' '}
      <a className="underline" href={`/canvas/${canvasId}/checkin/sheet`}>
        Read the inventory sheet
      </a>{' '}
      first.
    </p>
  );
}
