import type { LegendLine } from '../canvas/legend';
import { looseCode } from './codes';

/** What a word typed at the heap may mean. */
export type FoundLine =
  | { kind: 'one'; line: LegendLine; by: 'code' | 'key number' | 'symbol' }
  | { kind: 'several'; lines: LegendLine[] }
  | { kind: 'none' };

/** Finds the line of a bag by its code, else by its key number, else by its symbol. */
export function findLine(typed: string, legend: readonly LegendLine[]): FoundLine {
  const word = typed.trim();
  if (word === '') return { kind: 'none' };
  const ways = [
    ['code', (line: LegendLine) => looseCode(line.code) === looseCode(word)],
    ['key number', (line: LegendLine) => line.keyNumber.toLowerCase() === word.toLowerCase()],
    ['symbol', (line: LegendLine) => line.symbol === word],
  ] as const;
  for (const [by, fits] of ways) {
    const lines = legend.filter(fits);
    if (lines.length === 1) return { kind: 'one', line: lines[0]!, by };
    if (lines.length > 1) return { kind: 'several', lines };
  }
  return { kind: 'none' };
}

/** A bag as typed: `412`, or with its own count `412 × 140` (also `x` or `*`). */
export interface TypedBag {
  word: string;
  /** Null where no count was typed. */
  drills: number | null;
}

/** Splits `412 x 140` into the word and the count; anything else is a word alone. */
export function readTypedBag(typed: string): TypedBag {
  const counted = /^(.+?)\s*(?:\s[x×*]|[×*])\s*(\d{1,6})$/i.exec(typed.trim());
  return counted
    ? { word: counted[1]!.trim(), drills: Number(counted[2]) }
    : { word: typed.trim(), drills: null };
}
