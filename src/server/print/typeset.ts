import { readFile } from 'node:fs/promises';
import { create, type Font } from 'fontkit';
import { convert } from 'fontverter';
import subsetFont from 'subset-font';
import type { DrawingFont, FontMeasure } from '../../core/print/drawing';
import { CODES, type FontFamily, type FontPiece, SYMBOLS, scriptFamilies, WORDS } from './fontFiles';
import { levelsOf, mirrored } from './visualOrder';

/** A part of a text that is set in one font, in one direction. */
export interface TextRun {
  text: string;
  /** Name of its font; see {@link Typeset.fonts}. */
  font: string;
  /** Odd from right to left. */
  level: number;
}

/** Fonts for the texts of a document, and how each text is set in them. */
export interface Typeset extends FontMeasure {
  /** The runs of a text in the order of reading; a letter that no font has is a box. */
  runsOf(text: string, font: DrawingFont): readonly TextRun[];
  /** Width of a run as a share of the font size. */
  widthOfRun(run: TextRun): number;
  /** Fonts that were loaded, by name. */
  fonts: ReadonlyMap<string, LoadedFont>;
}

interface LoadedFont {
  bytes: Buffer;
  font: Font;
}

/** Stands where no font has a letter. */
const BOX = '□';
/** Weight in which further scripts are set. */
const WEIGHT = 400;

const ALWAYS: readonly FontFamily[] = [WORDS, CODES, SYMBOLS];
/** Where the words of each kind look for their letters before the further scripts. */
const OWN: Record<DrawingFont, readonly FontFamily[]> = { words: [WORDS], codes: [CODES, SYMBOLS] };

let always: Promise<ReadonlyMap<string, LoadedFont>> | null = null;

/** The fonts that are always at hand, read once. */
function loadedAlways(): Promise<ReadonlyMap<string, LoadedFont>> {
  always ??= readAll().catch((error: unknown) => {
    always = null;
    throw error;
  });
  return always;
}

async function readAll(): Promise<ReadonlyMap<string, LoadedFont>> {
  const entries = ALWAYS.flat().map(async ({ name, file }): Promise<[string, LoadedFont]> => {
    // Compressed, it would be inflated anew for each letter that is measured or embedded.
    const bytes = await convert(await readFile(file), 'sfnt');
    return [name, { bytes, font: create(bytes) as Font }];
  });
  return new Map(await Promise.all(entries));
}

/**
 * Makes ready the fonts that some texts need. Beside those always at hand, each script comes in pieces, of which just the
 * letters that occur are taken (as HarfBuzz subsets them, with all forms that they take beside each other).
 * @param texts all that will be set; what is not among them is set in the fonts always at hand
 */
export async function typesetFor(texts: Iterable<string>): Promise<Typeset> {
  const fonts = new Fonts(new Map(await loadedAlways()));
  const words = new Set<string>();
  for (const text of texts) for (const word of text.normalize('NFC').split(/\s+/)) words.add(word);
  // A font may lack a letter of its range; then the word asks the next family, in another round.
  for (let again = true; again; ) {
    for (const word of words) {
      fonts.want(fonts.lettersOf(word, 'words'));
      fonts.want(fonts.lettersOf(word, 'codes'));
    }
    again = await fonts.load();
  }
  return typeset(fonts);
}

/** A letter and the piece of a font that has it; null where none has. */
type Placed = [letter: string, piece: FontPiece | null];

/** Fonts while they are gathered: what is loaded, what is wanted, and what turned out to be missing. */
class Fonts {
  private readonly wanted = new Map<FontPiece, Set<string>>();
  private readonly asked = new Map<FontPiece, Set<string>>();

  constructor(readonly loaded: Map<string, LoadedFont>) {}

  /** Which font sets each letter of a word: one family for the whole word if there is one, else letter by letter. */
  lettersOf(word: string, kind: DrawingFont): Placed[] {
    const letters = [...word];
    const own = OWN[kind];
    // A font of symbols has Greek letters too; words of any script look better in a font for words.
    const symbols = kind === 'words' && !/\p{L}/u.test(word) ? [SYMBOLS] : [];
    const rest = kind === 'words' ? [CODES, SYMBOLS] : [WORDS];
    const families = [...own, ...symbols, ...scriptFamilies(word), ...rest];
    for (const family of families) {
      const pieces = letters.map((letter) => this.pieceOf(letter, family));
      if (pieces.every((piece) => piece !== null)) return letters.map((letter, i) => [letter, pieces[i]!]);
    }
    return letters.map((letter) => {
      for (const family of families) {
        const piece = this.pieceOf(letter, family);
        if (piece) return [letter, piece];
      }
      return [letter, null];
    });
  }

  private pieceOf(letter: string, family: FontFamily): FontPiece | null {
    const codePoint = letter.codePointAt(0)!;
    return family.find((piece) => this.has(piece, letter, codePoint)) ?? null;
  }

  private has(piece: FontPiece, letter: string, codePoint: number): boolean {
    const isIn = piece.ranges?.some(([first, last]) => codePoint >= first && codePoint <= last) ?? true;
    if (!isIn) return false;
    if (piece.ranges !== null && !this.asked.get(piece)?.has(letter)) return true;
    return this.loaded.get(piece.name)?.font.hasGlyphForCodePoint(codePoint) ?? false;
  }

  want(letters: readonly Placed[]): void {
    for (const [letter, piece] of letters) {
      if (!piece?.ranges || this.asked.get(piece)?.has(letter)) continue;
      const wanted = this.wanted.get(piece) ?? new Set();
      this.wanted.set(piece, wanted.add(letter));
    }
  }

  /** Loads what is wanted. @returns whether there was anything */
  async load(): Promise<boolean> {
    const round = [...this.wanted];
    this.wanted.clear();
    for (const [piece, letters] of round) {
      const all = new Set([...(this.asked.get(piece) ?? []), ...letters]);
      this.asked.set(piece, all);
      // Shaping takes some letters apart, a Thai vowel for one.
      const text = [...all].join('');
      const bytes = await subsetFont(await readFile(piece.file), text + text.normalize('NFKD'), {
        targetFormat: 'sfnt',
        variationAxes: { wght: WEIGHT },
      });
      const font = create(bytes) as Font;
      if (isLegible(font)) this.loaded.set(piece.name, { bytes, font });
    }
    return round.length > 0;
  }
}

/** A piece that has none of the wanted letters ends as a font without any. */
function isLegible(font: Font): boolean {
  try {
    font.hasGlyphForCodePoint(0x20);
    return true;
  } catch {
    return false;
  }
}

function typeset(fonts: Fonts): Typeset {
  const known = new Map<string, readonly TextRun[]>();
  const widths = new Map<string, number>();
  const runsOf = (text: string, kind: DrawingFont): readonly TextRun[] => {
    const key = `${kind} ${text}`;
    const runs = known.get(key) ?? runsInOrder(text.normalize('NFC'), kind, fonts);
    known.set(key, runs);
    return runs;
  };
  const widthOfRun = ({ text, font }: TextRun): number => {
    const key = `${font} ${text}`;
    let width = widths.get(key);
    if (width === undefined) {
      const loaded = fonts.loaded.get(font)!.font;
      width = loaded.layout(text).advanceWidth / loaded.unitsPerEm;
      widths.set(key, width);
    }
    return width;
  };
  return {
    fonts: fonts.loaded,
    runsOf,
    widthOfRun,
    widthOf: (text, kind, size) => runsOf(text, kind).reduce((sum, run) => sum + widthOfRun(run), 0) * size,
    canPrint: (text) =>
      text
        .normalize('NFC')
        .split(/\s+/)
        .every((word) => fonts.lettersOf(word, 'codes').every(([, piece]) => piece !== null)),
  };
}

/** The runs of a text in the order of reading. */
function runsInOrder(text: string, kind: DrawingFont, fonts: Fonts): TextRun[] {
  const levels = levelsOf(text);
  const runs: TextRun[] = [];
  let at = 0;
  for (const word of text.match(/\S+|\s+/g) ?? []) {
    const isSpace = word.trim() === '';
    for (const [letter, piece] of isSpace ? spaced(word) : fonts.lettersOf(word, kind)) {
      const level = levels[at]!;
      const last = runs.at(-1);
      // The fonts of further scripts have no space.
      const font = isSpace ? kind : (piece?.name ?? 'symbols');
      const shown = isSpace ? ' ' : piece ? mirrored(letter, level) : BOX;
      if (last && last.font === font && last.level === level) last.text += shown;
      else runs.push({ text: shown, font, level });
      at += letter.length;
    }
  }
  return runs.map((run) => ({ ...run, text: turned(run) }));
}

const RIGHT_TO_LEFT = /[\p{Script=Arabic}\p{Script=Hebrew}]/u;

/** Signs without a direction of their own, among letters read from right to left, stand in that order; letters turn themselves. */
function turned({ text, level }: TextRun): string {
  return level % 2 === 1 && !RIGHT_TO_LEFT.test(text) ? [...text].reverse().join('') : text;
}

function spaced(space: string): Placed[] {
  return [...space].map((letter) => [letter, null]);
}
