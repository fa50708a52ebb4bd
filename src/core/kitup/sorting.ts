import { compareCodes, looseCode } from '../codes/codes';

/** A pile of the first pass: the bags from one code to another. */
interface Pile {
  from: string;
  to: string;
  bags: number;
}

/** How to bring an unordered heap into code order in two passes over it. */
export interface SortingHelp {
  bags: number;
  /** First pass: a pile a range of codes, in order. Second pass: each pile by itself. */
  piles: Pile[];
  /** Largest pile, which must lie on the table at once in the second pass. */
  largest: number;
  /** Two passes by the digits of the key number, where the bags carry one. */
  digits: { first: number[]; second: number[] } | null;
}

/** More piles than this do not lie within reach. */
const MOST_PILES = 12;

/**
 * Plans the two-pass sorting of a heap. √n piles of about √n bags take the fewest looks (n bags, each compared with the
 * piles once and with its own pile once), at most twelve; a code is never split, and of equal piles those are taken
 * whose border is a round hundred.
 */
export function sortingHelp(
  lines: readonly { code: string; keyNumber: string; bags: number }[],
): SortingHelp {
  const sorted = lines.filter(({ bags }) => bags > 0).sort((a, b) => compareCodes(a.code, b.code));
  const bags = sorted.reduce((sum, { bags: n }) => sum + n, 0);
  const wanted = Math.max(1, Math.min(MOST_PILES, sorted.length, Math.round(Math.sqrt(bags))));
  const piles = evenPiles(sorted, wanted);
  return {
    bags,
    piles,
    largest: Math.max(0, ...piles.map((pile) => pile.bags)),
    digits: digitPasses(sorted.map(({ keyNumber }) => keyNumber)),
  };
}

/** Cuts a sorted list into piles so that the largest is least; ties go to cuts between two hundreds. */
function evenPiles(sorted: readonly { code: string; bags: number }[], piles: number): Pile[] {
  const n = sorted.length;
  if (n === 0) return [];
  const before = [0];
  for (const { bags } of sorted) before.push(before.at(-1)! + bags);
  const hundred = (code: string) => looseCode(code).replace(/\d\d$/, '');
  const hundreds = sorted.map(({ code }) => hundred(code));
  const roughCut = hundreds.map((own, at) => (at > 0 && own === hundreds[at - 1] ? 1 : 0));
  // Ties are between all ways to cut that have no larger pile, so the largest comes first.
  const largest = leastCuts(n, piles, (cut, end, rest) => Math.max(rest, before[end]! - before[cut]!)).cost;
  const { starts } = leastCuts(n, piles, (cut, end, rest) =>
    before[end]! - before[cut]! > largest ? Infinity : rest + roughCut[cut]!,
  );
  return starts.map((start, i) => {
    const end = starts[i + 1] ?? n;
    return {
      from: sorted[start]!.code,
      to: sorted[end - 1]!.code,
      bags: before[end]! - before[start]!,
    };
  });
}

/**
 * Cuts `n` things in a row into so many parts, none of them empty, at the least cost.
 * @param costOf the last part, from `cut` to before `end`, and what is before it at the cost `rest`; never less than `rest`
 * @returns where the parts start
 */
function leastCuts(
  n: number,
  parts: number,
  costOf: (cut: number, end: number, rest: number) => number,
): { cost: number; starts: number[] } {
  // least[p][i]: the least cost of the first i things in p parts, and where the last of them starts
  const least = [Array.from({ length: n + 1 }, (_, i) => ({ cost: i === 0 ? 0 : Infinity, cut: 0 }))];
  for (let p = 1; p <= parts; p++) {
    least.push(
      Array.from({ length: n + 1 }, (_, end) => {
        let best = { cost: Infinity, cut: 0 };
        for (let cut = p - 1; cut < end; cut++) {
          const cost = costOf(cut, end, least[p - 1]![cut]!.cost);
          if (cost < best.cost) best = { cost, cut };
        }
        return best;
      }),
    );
  }
  const starts: number[] = [];
  for (let p = parts, end = n; p > 0; p--) {
    end = least[p]![end]!.cut;
    starts.unshift(end);
  }
  return { cost: least[parts]![n]!.cost, starts };
}

/**
 * Radix order for key numbers of at most two digits: first by the last digit, gather the piles in order, then by the
 * first digit. After two passes every bag is in place without one comparison.
 */
function digitPasses(keys: readonly string[]): SortingHelp['digits'] {
  if (keys.length <= 10 || !keys.every((key) => /^\d{1,2}$/.test(key))) return null;
  const distinct = (digit: (key: number) => number) =>
    [...new Set(keys.map((key) => digit(Number(key))))].sort((a, b) => a - b);
  return { first: distinct((key) => key % 10), second: distinct((key) => Math.floor(key / 10)) };
}
