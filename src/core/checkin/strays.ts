import type { LegendLine } from '../canvas/legend';
import { looseCode } from '../codes/codes';
import type { CountedBag } from './bag';
import type { LineSupply } from './supply';

/** What a bag on no line of the sheet may be. */
export interface StrayMatch {
  bagId: string;
  line: number;
  /** A misread code, or a bag that the sender put in for one that is missing. */
  as: 'misread' | 'substitute';
  /** Why it is thought so, as a sentence. */
  reason: string;
}

/**
 * Matches strays to lines that still lack a bag. One sign off (changed, left out, added, or two turned round) looks
 * like a misread. A stray that is near no code, while just one line lacks bags and no other stray could fill it,
 * looks like a substitute.
 */
export function matchStrays(
  bags: readonly CountedBag[],
  legend: readonly LegendLine[],
  supply: readonly LineSupply[],
): StrayMatch[] {
  const strays = bags.filter((bag) => bag.line === null);
  const lacking = legend.filter((_, i) => supply[i]!.bagsToFind > 0);
  const misreads = strays.flatMap((bag) =>
    lacking
      .filter((line) => oneSignOff(looseCode(bag.label), looseCode(line.code)))
      .map(
        (line): StrayMatch => ({
          bagId: bag.id,
          line: line.line,
          as: 'misread',
          reason: `${bag.label} is one sign off ${line.code}, which has no bag yet. Look at the print again.`,
        }),
      ),
  );
  const explained = new Set(misreads.map((match) => match.bagId));
  const filled = new Set(misreads.map((match) => match.line));
  const unexplained = strays.filter((bag) => !explained.has(bag.id));
  const open = lacking.filter((line) => !filled.has(line.line));
  if (open.length !== 1 || unexplained.length === 0) return misreads;
  const only = open[0]!;
  return [
    ...misreads,
    ...unexplained.map(
      (bag): StrayMatch => ({
        bagId: bag.id,
        line: only.line,
        as: 'substitute',
        reason: `${only.code} is the only colour without a bag, so ${bag.label} may be meant for it. Compare the colours before you use it.`,
      }),
    ),
  ];
}

/** Whether two words differ by one changed, missing or added sign, or by two neighbours turned round. */
export function oneSignOff(first: string, second: string): boolean {
  if (first === second || Math.abs(first.length - second.length) > 1) return false;
  const [short, long] = first.length <= second.length ? [first, second] : [second, first];
  let at = 0;
  while (at < short.length && short[at] === long[at]) at++;
  if (short.length < long.length) return short.slice(at) === long.slice(at + 1);
  if (short.slice(at + 1) === long.slice(at + 1)) return true;
  return (
    short[at] === long[at + 1] && short[at + 1] === long[at] && short.slice(at + 2) === long.slice(at + 2)
  );
}
