import type { BagsCarry } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import { plainSigns } from '../words/plainSigns';
import { looseCode } from './codes';

/** What a word typed at the heap may mean. */
export type FoundLine =
  | { kind: 'one'; line: LegendLine }
  /** The likeliest first; with one alone where even that is a guess. */
  | { kind: 'several'; lines: LegendLine[] }
  | { kind: 'none' };

/**
 * Finds the colour of a bag by its code as printed, its key number or its symbol. A word that is the code of one colour
 * and the key number or symbol of another is asked about, unless it is known what the bags of this kit carry. Where
 * nothing fits so, the code without its prefix or with other leading zeros does, as worn bags show it.
 */
export function findLine(
  typed: string,
  legend: readonly LegendLine[],
  bagsCarry: BagsCarry | null = null,
): FoundLine {
  const word = typed.trim();
  if (word === '') return { kind: 'none' };
  const number = bareNumber(word);
  const byCode = legend.filter((line) => looseCode(line.code) === looseCode(word));
  const byKey = legend.filter((line) => sameKey(line.keyNumber, word));
  const bySymbol = legend.filter((line) => line.symbol === word);
  if (bySymbol.length === 0) {
    const plain = plainSigns(word);
    bySymbol.push(...legend.filter(({ symbol }) => symbol !== null && plainSigns(symbol) === plain));
  }
  const byNumber = legend.filter(
    (line) => number !== null && bareNumber(line.code) === number && prefixFits(line.code, word),
  );
  if (bagsCarry === 'codes') {
    if (byCode.length > 0) return foundAmong(byCode);
    const worn = foundAmong(byNumber);
    if (worn.kind !== 'none') return worn;
    // No bag of this kit carries a key number, so this is half a code, perhaps.
    const others = distinct([...byKey, ...bySymbol]);
    return others.length > 0 ? { kind: 'several', lines: others } : { kind: 'none' };
  }
  if (bagsCarry === 'key numbers' && byKey.length > 0) return foundAmong(byKey);
  const exact = foundAmong(distinct([...byCode, ...byKey, ...bySymbol]));
  return exact.kind === 'none' ? foundAmong(byNumber) : exact;
}

function foundAmong(lines: LegendLine[]): FoundLine {
  if (lines.length === 1) return { kind: 'one', line: lines[0]! };
  return lines.length > 1 ? { kind: 'several', lines } : { kind: 'none' };
}

function distinct(lines: LegendLine[]): LegendLine[] {
  return [...new Set(lines)];
}

function sameKey(key: string, word: string): boolean {
  const plain = plainSigns(word).toLowerCase();
  return key.toLowerCase() === plain || (/^\d+$/.test(plain) && key === String(Number(plain)));
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
