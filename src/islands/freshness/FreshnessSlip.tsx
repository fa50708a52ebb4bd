import { useFreshness } from './useFreshness';

/** Tells on a page that was left open that it is no longer what it was; nothing is taken from under a hand that types. */
export function FreshnessSlip({ canvasId }: { canvasId: string }) {
  const freshness = useFreshness(canvasId);
  if (freshness === 'fresh') return null;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center justify-center gap-x-4 gap-y-2 bg-lamp px-5 py-2 text-ink print:hidden"
    >
      <p>
        {freshness === 'changed'
          ? 'This canvas was changed on another page or device.'
          : 'A new day has begun since this page was opened.'}
      </p>
      <button type="button" className="button" onClick={() => window.location.reload()}>
        Show the newest
      </button>
    </div>
  );
}
