import { betaQuantile, normalCdf } from '../chance/distributions';

/** Pieces that went through the hand, and how many of them were thrown out. */
export interface TrashTally {
  handled: number;
  thrown: number;
}

/** Where the trash share starts: 3 % with the weight of one small packet (common practice, no source). */
export const TRASH_START: TrashTally = { handled: 200, thrown: 6 };

/** The share of drills to expect as trash: the start and all that was recorded since, in one tally. */
export function learnedTrash(records: readonly TrashTally[]): TrashTally & { share: number } {
  const all = [TRASH_START, ...records];
  const handled = all.reduce((sum, record) => sum + record.handled, 0);
  const thrown = all.reduce((sum, record) => sum + record.thrown, 0);
  return { handled, thrown, share: thrown / handled };
}

/** Nodes at which the trash share is tried; their number bounds the error well below a thousandth. */
const NODES = 200;

/**
 * The chance that a colour runs out, for one tally of trash.
 *
 * Model: the drills that are here are normal around `drills` with standard deviation `spread`; each of them is trash
 * with a share T, itself uncertain as Beta(thrown, handled − thrown). Given T the usable drills are then normal with
 * mean S(1 − T) and variance (1 − T)² spread² + S T (1 − T); over T the chance is averaged at equally likely nodes.
 * @param trash as {@link learnedTrash} gives it
 * @returns a function of the drills needed and those that are here, giving 0…1
 */
export function chanceOfRunningOut(
  trash: TrashTally,
): (neededDrills: number, here: { drills: number; spread: number }) => number {
  const { shares, chances } = knownOf(trash);
  const reckoned = (neededDrills: number, drills: number, spread: number) => {
    let sum = 0;
    for (const share of shares) {
      const mean = drills * (1 - share);
      const variance = (1 - share) ** 2 * spread ** 2 + drills * share * (1 - share);
      // Half a drill less: usable drills are whole, the normal law is not (continuity correction).
      sum += normalCdf(neededDrills - 0.5, mean, Math.sqrt(Math.max(variance, 1e-9)));
    }
    return sum / NODES;
  };
  return (neededDrills, { drills, spread }) => {
    if (neededDrills === 0) return 0;
    if (drills === 0) return 1;
    const key = `${neededDrills} ${drills} ${spread}`;
    const chance = chances.get(key) ?? reckoned(neededDrills, drills, spread);
    if (chances.size >= MOST_KEPT) chances.clear();
    chances.set(key, chance);
    return chance;
  };
}

/** What was worked out for one tally of trash. */
interface Known extends TrashTally {
  /** Equally likely trash shares. */
  shares: readonly number[];
  /** Chances by the drills needed, here, and their spread. */
  chances: Map<string, number>;
}
let kept: Known | null = null;
const MOST_KEPT = 20_000;

/** Quantiles and chances are dear; the tally changes seldom, and a new bag changes one colour: the last are kept. */
function knownOf({ thrown, handled }: TrashTally): Known {
  if (kept?.thrown !== thrown || kept.handled !== handled) {
    const shares = Array.from({ length: NODES }, (_, i) =>
      betaQuantile((i + 0.5) / NODES, thrown, handled - thrown),
    );
    kept = { thrown, handled, shares, chances: new Map() };
  }
  return kept;
}

/**
 * How likely a colour runs out, in words first, the percent behind them.
 * @example chanceInWords(0.03) // 'Unlikely to run out (3 %)'
 */
export function chanceInWords(chance: number): string {
  const percent = chance * 100;
  if (percent < 1) return 'Very unlikely to run out (below 1 %)';
  if (percent > 99) return 'Almost certain to run out (above 99 %)';
  const words =
    percent < 5 ? 'Unlikely to' : percent < 33 ? 'May' : percent < 67 ? 'As likely as not to' : 'Likely to';
  return `${words} run out (${percent.toFixed(0)} %)`;
}
