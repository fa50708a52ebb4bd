import type { Effort } from '../pace/effort';
import { placementKind } from '../pace/effort';
import { roughTimeInWords } from '../pace/timeInWords';
import { counted, many } from '../words/numbers';
import { cutRegion } from './cutting';
import type { Regions } from './regions';
import { onePerPlacement } from './search/barCosts';
import { searchRegions } from './search/fewest';
import { KNOWN_TIPS } from './tips';

/** What the work takes with bars of up to so many drills. */
export interface TipWorth {
  tip: number;
  placements: number;
  /** Of the placements alone. */
  seconds: number;
}

/** Tips up to this size are compared. */
export const WIDEST_COMPARED = 15;
/** A set of tips is good enough within this share of the best. */
const NEAR = 0.02;

/**
 * What each size of tip makes of the squares that are left, one after the other from 1 to {@link WIDEST_COMPARED}. A
 * narrower tip does what a wider one can with fewer drills, so one bar tip beside the single placer is enough.
 * @param pieces of the canvas that no bar reaches across, such as its panels
 * @param rounds of the search, see `SearchLimits`; 0 for a whole canvas
 */
export function* tipAfterTip(
  pieces: readonly Regions[],
  seconds: Readonly<Effort>,
  rounds: number,
): Generator<TipWorth> {
  let before: TipWorth | null = null;
  for (let tip = 1; tip <= WIDEST_COMPARED; tip++) {
    const bars = onePerPlacement(tip);
    const worth: TipWorth = { tip, placements: 0, seconds: 0 };
    for (const regions of pieces) {
      const { labels } = searchRegions(regions, () => bars, 1, { rounds });
      for (let region = 0; region < regions.lines.length; region++) {
        cutRegion(regions, region, labels, bars, (_place, drills) => {
          worth.placements++;
          worth.seconds += seconds[placementKind(drills)];
        });
      }
    }
    // The search is not perfect; a wider tip may always pick up fewer.
    if (before && before.placements < worth.placements) {
      worth.placements = before.placements;
      worth.seconds = before.seconds;
    }
    before = worth;
    yield worth;
  }
}

/** All of {@link tipAfterTip}. */
export function tipsWorth(pieces: readonly Regions[], seconds: Readonly<Effort>, rounds: number): TipWorth[] {
  return [...tipAfterTip(pieces, seconds, rounds)];
}

/** The narrowest tip that is sold and comes within two hundredths of the widest. */
export function enoughTip(worth: readonly TipWorth[]): TipWorth {
  const best = worth.at(-1)!.placements;
  return worth.find(({ tip, placements }) => KNOWN_TIPS.includes(tip) && placements <= best * (1 + NEAR))!;
}

/** What a tip saves against the widest one owned; below 0 for a narrower one. */
export function savedBy(
  worth: readonly TipWorth[],
  widestOwned: number,
  tip: number,
): { placements: number; seconds: number } {
  const at = (size: number) => worth[Math.min(size, WIDEST_COMPARED) - 1]!;
  const [now, then] = [at(widestOwned), at(tip)];
  return { placements: now.placements - then.placements, seconds: now.seconds - then.seconds };
}

/**
 * Which tips earn their place, in a sentence or two.
 * @example tipsInWords(worth, [1, 3]) // 'A 6-tip saves 410 placements, about 40 minutes; a 10-tip adds 30. …'
 */
export function tipsInWords(worth: readonly TipWorth[], tips: readonly number[]): string {
  const owned = tips.at(-1) ?? 1;
  const enough = enoughTip(worth);
  const now = worth[Math.min(owned, WIDEST_COMPARED) - 1]!;
  if (now.placements === 0) return 'Nothing is left to lay here.';
  const saved = (from: number, to: number) => savedBy(worth, from, to);
  if (owned >= enough.tip) {
    const more = saved(owned, WIDEST_COMPARED).placements;
    const narrower =
      enough.tip < owned ? ` ${article(enough.tip)} ${enough.tip}-tip does nearly as well here.` : '';
    const yours = owned === 1 ? 'single placer' : `${owned}-tip`;
    return more === 0
      ? `A wider tip than your ${yours} saves nothing here.${narrower}`
      : `A wider tip than your ${yours} saves no more than ${counted(more, 'placement')}.${narrower}`;
  }
  const first = saved(owned, enough.tip);
  const rest = saved(enough.tip, WIDEST_COMPARED);
  const adds =
    enough.tip === WIDEST_COMPARED
      ? ''
      : rest.placements > 0
        ? `; a ${WIDEST_COMPARED}-tip adds ${many(rest.placements)}`
        : '; a wider one adds nothing';
  return `${article(enough.tip)} ${enough.tip}-tip saves ${counted(first.placements, 'placement')}, about ${roughTimeInWords(Math.max(1, first.seconds / 60))}${adds}.`;
}

function article(tip: number): string {
  return tip === 8 || tip === 11 ? 'An' : 'A';
}
