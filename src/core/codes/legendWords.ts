import type { LegendLine } from '../canvas/legend';
import { largest } from '../words/numbers';

/** What the words of a grid may be; a chart prints symbols, so these come first where two explain as much. */
export const WORD_KINDS = ['symbols', 'codes', 'key numbers'] as const;
export type WordKind = (typeof WORD_KINDS)[number];

/** By which words a colour may be named; one that is empty names nothing. */
export type NamedLine = Pick<LegendLine, 'line' | 'symbol' | 'code' | 'keyNumber'>;

/** Words by which colours are named in one way; a word that two colours share names neither. */
export function wordsOfKind(legend: readonly NamedLine[], kind: WordKind): Map<string, number> {
  const words = new Map<string, number>();
  const shared = new Set<string>();
  const add = (word: string, line: number) => {
    if (word === '') return;
    const before = words.get(word);
    if (before !== undefined && before !== line) shared.add(word);
    words.set(word, line);
  };
  for (const { line, symbol, code, keyNumber } of legend) {
    if (kind === 'symbols' && symbol !== null) add(symbol, line);
    // Letter case tells symbols apart ("a" and "A"), codes never: those also match in lower case.
    if (kind === 'codes') {
      add(code, line);
      if (code.toLowerCase() !== code) add(code.toLowerCase(), line);
    }
    if (kind === 'key numbers') add(keyNumber, line);
  }
  for (const word of shared) words.delete(word);
  return words;
}

/** How the words of a text are read: one way for all of them, so that no word changes its meaning from cell to cell. */
export interface WordReading {
  kind: WordKind;
  lineOf(word: string): number | undefined;
  /** The same, and for a word that this way does not know, what the other ways say, if they agree: for typing by hand. */
  looseLineOf(word: string): number | undefined;
  /** Ways that explain as many words, or nearly, but otherwise. */
  others: WordKind[];
}

/** Another way is worth a word when it explains so much of what the chosen one does. */
const NEARLY_AS_GOOD = 0.9;

/**
 * Chooses the way that explains most of the words.
 * @param words each with how often it stands there
 * @param wanted the way, where the reader says it
 */
export function readWords(
  legend: readonly NamedLine[],
  words: ReadonlyMap<string, number>,
  wanted: WordKind | null = null,
): WordReading {
  const ways = WORD_KINDS.map((kind) => {
    const known = wordsOfKind(legend, kind);
    const lineOf = (word: string) =>
      known.get(word) ?? (kind === 'codes' ? known.get(word.toLowerCase()) : undefined);
    let explained = 0;
    for (const [word, times] of words) if (lineOf(word) !== undefined) explained += times;
    return { kind, lineOf, explained };
  });
  const most = largest(ways.map(({ explained }) => explained));
  const chosen = ways.find(({ kind, explained }) => (wanted ? kind === wanted : explained === most))!;
  const differs = (way: (typeof ways)[number]) =>
    [...words.keys()].some((word) => {
      const line = way.lineOf(word);
      return line !== undefined && line !== chosen.lineOf(word);
    });
  return {
    kind: chosen.kind,
    lineOf: chosen.lineOf,
    looseLineOf: (word) => {
      const own = chosen.lineOf(word);
      if (own !== undefined) return own;
      const [line, ...more] = new Set(ways.flatMap((way) => way.lineOf(word) ?? []));
      return more.length === 0 ? line : undefined;
    },
    others: ways
      .filter((way) => way !== chosen && way.explained >= most * NEARLY_AS_GOOD && most > 0 && differs(way))
      .map(({ kind }) => kind),
  };
}

/** How words were read, and that they could be read otherwise. */
export function readingInWords({ kind, others }: Pick<WordReading, 'kind' | 'others'>): string {
  const otherwise =
    others.length > 0
      ? ` They could be ${others.join(' or ')} as well, which would be another chart: look before you save.`
      : '';
  return `The words were read as ${kind}, all of them.${otherwise}`;
}
