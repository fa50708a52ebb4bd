import type { SwitchName, WishPrice } from '../../core/placing/prices';
import { priceInWords, SHORT_BAR, SWITCHES, switched } from '../../core/placing/prices';
import { LIGHT_FROM, type PlacingWish } from '../../core/placing/wish';
import { counted, many } from '../../core/words/numbers';
import { NumberField } from '../../ui/NumberField';
import type { WholeSearch } from './usePlacingWork';

/** What each wish is called, and why people have it (common practice, no source). */
const WISHES: [SwitchName, string, string][] = [
  [
    'minutes',
    'Least minutes',
    'Weighs single drills and bars by your own seconds, not only by their number.',
  ],
  [
    'sparing',
    'Turn only where it pays',
    'Rows and columns in one colour only where that saves enough placements.',
  ],
  ['one', 'One direction a colour', 'The tray or the pen is turned between colours only.'],
  ['tipByTip', 'One tip after the other', 'All bars with one tip, then the next; else row by row.'],
  ['staggered', 'Staggered ends', 'No break beside a break of the row before, so no seam shows.'],
  ['rows', 'Every second row first', 'Then the gaps: squares drift less, but each colour is opened twice.'],
  ['singlesAbove', 'Light colours one by one', 'Light drills show every uneven line.'],
  ['longest', 'Short bars', 'Steadier for hands that tremble.'],
  [
    'edgeSingles',
    'Single drills at the borders',
    'Beside the next section, where bars push drills out of line.',
  ],
];

/** What the user likes, each with its price in this section. */
export function WishPanel({
  wish,
  prices,
  hand,
  canvasId,
  whole,
  onWhole,
  onStop,
  onChange,
}: {
  wish: PlacingWish;
  prices: Partial<Record<SwitchName, WishPrice>>;
  hand: 'right' | 'left';
  canvasId: string;
  whole: WholeSearch | null;
  /** @param borders whether bars end at the borders of sections */
  onWhole: (borders: boolean) => void;
  onStop: () => void;
  onChange: (part: Partial<PlacingWish>) => void;
}) {
  return (
    <div className="flex min-h-0 grow flex-col gap-2 overflow-y-auto" data-testid="wishes">
      <ul className="border border-line bg-paper">
        {WISHES.map(([name, words, reason]) => {
          const on = SWITCHES[name].isOn(wish);
          const price = prices[name];
          return (
            <li key={name} className="border-b border-line px-2.5 py-1.5">
              <label className="flex min-h-11 items-start gap-2.5">
                <input
                  type="checkbox"
                  className="mt-1 size-5 shrink-0 accent-accent"
                  checked={on}
                  onChange={() => onChange(switched(wish, name, !on))}
                />
                <span>
                  <span className="font-semibold">{words}</span>
                  <span className="block text-[0.98rem]">{price ? priceInWords(price) : '…'}</span>
                  <span className="block text-[0.95rem] leading-snug text-faded">{reason}</span>
                </span>
              </label>
              {name === 'sparing' && on && (
                <NumberField
                  words="Placements that a turn must save"
                  value={wish.turnWorth}
                  least={0}
                  most={100}
                  whole
                  onChange={(turnWorth) => onChange({ turnWorth })}
                />
              )}
              {name === 'singlesAbove' && on && (
                <NumberField
                  words={`Lighter than, 0 black to 100 white (usual ${LIGHT_FROM})`}
                  value={wish.singlesAbove!}
                  least={0}
                  most={100}
                  onChange={(singlesAbove) => onChange({ singlesAbove })}
                />
              )}
              {name === 'longest' && on && (
                <NumberField
                  words={`Drills of the longest bar (usual ${SHORT_BAR})`}
                  value={wish.longest!}
                  least={1}
                  most={50}
                  whole
                  onChange={(longest) => onChange({ longest })}
                />
              )}
            </li>
          );
        })}
      </ul>
      <p>
        Bars run for a {hand}-handed pen. <a href={`/canvas/${canvasId}/sections/cover`}>Change the hand</a>{' '}
        under Sections.
      </p>
      <div className="slip !py-3">
        <p className="font-semibold">The whole canvas</p>
        <p className="text-[0.98rem] text-faded">The fewest placements, better and better while it runs.</p>
        <div className="mt-1.5 flex flex-wrap gap-2">
          <button type="button" className="button" disabled={whole?.running} onClick={() => onWhole(true)}>
            With borders
          </button>
          <button type="button" className="button" disabled={whole?.running} onClick={() => onWhole(false)}>
            Without borders
          </button>
          {whole?.running && (
            <button type="button" className="button" onClick={onStop}>
              Stop
            </button>
          )}
        </div>
        {whole && (
          <p className="mt-1.5" data-testid="whole">
            {counted(whole.placements, 'placement')}; no plan has fewer than {many(whole.bound)}.{' '}
            {whole.running
              ? `Searching, ${Math.round(whole.seconds)} s`
              : `The best after ${whole.seconds.toFixed(1)} s.`}
          </p>
        )}
      </div>
    </div>
  );
}
