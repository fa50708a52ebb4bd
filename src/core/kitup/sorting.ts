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
  // least[p][i]: the largest pile, and then the fewest cuts inside a hundred, of the first i codes in p piles
  type Best = { largest: number; rough: number; cut: number };
  const least: Best[][] = [
    Array.from({ length: n + 1 }, (_, i) => ({ largest: i === 0 ? 0 : Infinity, rough: 0, cut: 0 })),
  ];
  for (let p = 1; p <= piles; p++) {
    least.push(
      Array.from({ length: n + 1 }, (_, i) => {
        let best: Best = { largest: Infinity, rough: Infinity, cut: 0 };
        for (let cut = p - 1; cut < i; cut++) {
          const rest = least[p - 1]![cut]!;
          const largest = Math.max(rest.largest, before[i]! - before[cut]!);
          const rough = rest.rough + roughCut[cut]!;
          if (largest < best.largest || (largest === best.largest && rough < best.rough))
            best = { largest, rough, cut };
        }
        return best;
      }),
    );
  }
  const cuts: Pile[] = [];
  for (let p = piles, end = n; p > 0; p--) {
    const start = least[p]![end]!.cut;
    cuts.unshift({
      from: sorted[start]!.code,
      to: sorted[end - 1]!.code,
      bags: before[end]! - before[start]!,
    });
    end = start;
  }
  return cuts;
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
