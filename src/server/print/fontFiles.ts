import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** A file of a font family and the code points that it is made for. */
export interface FontPiece {
  /** Unique name, under which documents know it. */
  name: string;
  file: string;
  /** First and last code points; null for a file that is looked into. */
  ranges: [first: number, last: number][] | null;
}

/** Fonts in one design, in pieces by script. */
export type FontFamily = readonly FontPiece[];

const PACKAGES = join(process.cwd(), 'node_modules');

function whole(name: string, file: string): FontPiece {
  return { name, file: join(PACKAGES, file), ranges: null };
}

const NEXT = '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next';
const MONO = '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono';

/** The fonts that are always at hand: for words, for codes, and for symbols. */
export const WORDS: FontFamily = [
  whole('words', `${NEXT}-latin-400-normal.woff`),
  whole('moreWords', `${NEXT}-latin-ext-400-normal.woff`),
];
export const CODES: FontFamily = [
  whole('codes', `${MONO}-latin-600-normal.woff`),
  whole('moreCodes', `${MONO}-latin-ext-600-normal.woff`),
];
export const SYMBOLS: FontFamily = [
  whole('symbols', '@fontsource/noto-sans-math/files/noto-sans-math-latin-400-normal.woff'),
  whole('moreSymbols', '@fontsource/noto-sans-symbols-2/files/noto-sans-symbols-2-symbols-400-normal.woff'),
];

/** Families of further scripts in the order in which a word looks for its letters. */
const SCRIPTS = ['', '-arabic', '-hebrew', '-thai', '-devanagari', '-sc', '-jp', '-kr'].map(
  (script) => `noto-sans${script}`,
);
const JAPANESE = 'noto-sans-jp';
const KANA = /[\p{Script=Hiragana}\p{Script=Katakana}]/u;

const families = new Map<string, FontFamily>();

/** The families that may have a word; one with kana is set in Japanese forms throughout, its Han too. */
export function scriptFamilies(word: string): FontFamily[] {
  const names = KANA.test(word) ? [JAPANESE, ...SCRIPTS] : SCRIPTS;
  return names.map((name) => {
    const family = families.get(name) ?? piecesOf(name);
    families.set(name, family);
    return family;
  });
}

/** A package of the font says in `unicode.json` which of its files holds which code points. */
function piecesOf(name: string): FontFamily {
  const folder = join(PACKAGES, '@fontsource-variable', name);
  const ranges = JSON.parse(readFileSync(join(folder, 'unicode.json'), 'utf8')) as Record<string, string>;
  return Object.entries(ranges).flatMap(([piece, text]) => {
    const file = join(folder, 'files', `${name}-${piece.replace(/[[\]]/g, '')}-wght-normal.woff2`);
    return existsSync(file) ? [{ name: `${name} ${piece}`, file, ranges: rangesOf(text) }] : [];
  });
}

/** @example rangesOf('U+0460-052F,U+20B4') // [[0x460, 0x52f], [0x20b4, 0x20b4]] */
export function rangesOf(text: string): [number, number][] {
  return text.split(',').map((range) => {
    const [first = '', last = first] = range.trim().replace(/^U\+/i, '').split('-');
    return [Number.parseInt(first, 16), Number.parseInt(last, 16)];
  });
}
