import type { LegendLine } from '../canvas/legend';
import { looseCode } from './codes';

/** What a word typed at the heap may mean. */
export type FoundLine =
  | { kind: 'one'; line: LegendLine }
  | { kind: 'several'; lines: LegendLine[] }
  | { kind: 'none' };

/**
 * Finds the line of a bag. The code as printed goes first. Else the key number or the symbol; where these name two
 * lines, the user is asked. Else the code without its prefix or with other leading zeros, as worn bags show it.
 */
export function findLine(typed: string, legend: readonly LegendLine[]): FoundLine {
  const word = typed.trim();
  if (word === '') return { kind: 'none' };
  const number = bareNumber(word);
  const ways: ((line: LegendLine) => boolean)[] = [
    (line) => looseCode(line.code) === looseCode(word),
    (line) => line.symbol === word || sameKey(line.keyNumber, word),
    (line) => number !== null && bareNumber(line.code) === number && prefixFits(line.code, word),
  ];
  for (const fits of ways) {
    const lines = legend.filter(fits);
    if (lines.length === 1) return { kind: 'one', line: lines[0]! };
    if (lines.length > 1) return { kind: 'several', lines };
  }
  return { kind: 'none' };
}

function sameKey(key: string, word: string): boolean {
  return key.toLowerCase() === word.toLowerCase() || (/^\d+$/.test(word) && key === String(Number(word)));
}

/** The number in a code without prefix and leading zeros: `SH0412` gives `412`; null where there is none. */
function bareNumber(code: string): string | null {
  const parts = /^([a-z]*)0*(\d+)$/.exec(looseCode(code));
  return parts ? parts[2]! : null;
}

/** A typed prefix must be the line's; a missing one may be any. */
function prefixFits(code: string, word: string): boolean {
  const prefix = (text: string) => /^[a-z]*/.exec(looseCode(text))![0];
  return prefix(word) === '' || prefix(word) === prefix(code);
}

/** A bag as typed: `412`, or with its own count `412 × 140` (also `x` or `*`). */
export interface TypedBag {
  word: string;
  /** Null where no count was typed. */
  drills: number | null;
}

/** Splits `412 x 140` into the word and the count; anything else is a word alone. */
export function readTypedBag(typed: string): TypedBag {
  const counted = /^(.+?)\s*(?:\s[x×*]|[×*])\s*(\d{1,9})$/i.exec(typed.trim());
  return counted
    ? { word: counted[1]!.trim(), drills: Number(counted[2]) }
    : { word: typed.trim(), drills: null };
}
