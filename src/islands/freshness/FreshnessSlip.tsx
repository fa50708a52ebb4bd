import type { LivePart } from '../live/shownParts';
import { type Freshness, useFreshness } from './useFreshness';

const WHAT: Record<LivePart, string> = {
  marks: 'What is laid',
  bags: 'The bags',
  pots: 'The pots',
  trash: 'The bad drills',
  sittings: 'The sittings',
  sections: 'The cut into sections',
  repairs: 'The chart',
  sheet: 'The colour list',
  other: 'This canvas',
};
const SEVERAL: ReadonlySet<LivePart> = new Set(['bags', 'pots', 'trash', 'sittings']);

/** Tells on a page that was left open that it is no longer what it was; nothing is taken from under a hand that types. */
export function FreshnessSlip({ canvasId }: { canvasId: string }) {
  const freshness = useFreshness(canvasId);
  if (freshness.kind === 'fresh') return null;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center justify-center gap-x-4 gap-y-2 bg-lamp px-5 py-2 text-ink print:hidden"
    >
      <p>{words(freshness)}</p>
      {freshness.kind === 'deleted' ? (
        <a className="button" href="/">
          To the shelf
        </a>
      ) : (
        <button type="button" className="button" onClick={() => window.location.reload()}>
          Show the newest
        </button>
      )}
    </div>
  );
}

function words(freshness: Exclude<Freshness, { kind: 'fresh' }>): string {
  if (freshness.kind === 'yesterday') return 'A new day has begun since this page was opened.';
  if (freshness.kind === 'deleted') return 'This canvas was deleted. It can be brought back from the shelf.';
  const { part, by } = freshness;
  const where = by === null ? 'on another page or device' : `on another page, at “${by}”`;
  return `${WHAT[part]} ${SEVERAL.has(part) ? 'were' : 'was'} changed ${where}.`;
}
