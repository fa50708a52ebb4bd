import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { create, type Font } from 'fontkit';
import type { DrawingFont, FontMeasure } from '../../core/print/drawing';

/** Shipped fonts in the order in which a symbol looks for its glyph. */
const FONT_FILES = {
  words: '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff',
  codes: '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-600-normal.woff',
  symbols: '@fontsource/noto-sans-math/files/noto-sans-math-latin-400-normal.woff',
  moreSymbols: '@fontsource/noto-sans-symbols-2/files/noto-sans-symbols-2-symbols-400-normal.woff',
} as const satisfies Record<DrawingFont, string>;
export type FontName = DrawingFont;

interface LoadedFont {
  bytes: Buffer;
  font: Font;
}
export type Fonts = ReadonlyMap<FontName, LoadedFont>;

let loading: Promise<Fonts> | null = null;

/** The shipped fonts, read once. */
export function shippedFonts(): Promise<Fonts> {
  loading ??= readAll().catch((error: unknown) => {
    loading = null;
    throw error;
  });
  return loading;
}

async function readAll(): Promise<Fonts> {
  const entries = Object.entries(FONT_FILES) as [FontName, string][];
  return new Map(
    await Promise.all(
      entries.map(async ([name, file]): Promise<[FontName, LoadedFont]> => {
        const bytes = await readFile(join(process.cwd(), 'node_modules', file));
        return [name, { bytes, font: create(bytes) as Font }];
      }),
    ),
  );
}

/** The first shipped font that has every glyph of a symbol or code; null when none has. */
export function fontFor(text: string, fonts: Fonts): FontName | null {
  for (const name of ['codes', 'symbols', 'moreSymbols'] as const) {
    const { font } = fonts.get(name)!;
    if ([...text].every((glyph) => font.hasGlyphForCodePoint(glyph.codePointAt(0)!))) return name;
  }
  return null;
}

/** Whether some shipped font can print a symbol. */
export async function canPrint(symbol: string): Promise<boolean> {
  return fontFor(symbol, await shippedFonts()) !== null;
}

/** Outline of a short text in thousandths of the font size, upwards; `middle` is the height of its optical middle. */
export interface Outline {
  path: string;
  width: number;
  middle: number;
}

/** A text that no shipped font has gets the outline of a bare box. */
export async function glyphOutline(text: string): Promise<Outline> {
  const fonts = await shippedFonts();
  const name = fontFor(text, fonts);
  const { font } = fonts.get(name ?? 'codes')!;
  const run = font.layout(name ? text : '□');
  const scale = 1000 / font.unitsPerEm;
  let x = 0;
  const parts = run.glyphs.map((glyph, i) => {
    const placed = glyph.path.scale(scale).translate(x, 0).toSVG();
    x += run.positions[i]!.xAdvance * scale;
    return placed;
  });
  return { path: parts.join(''), width: x, middle: 340 };
}

/** Measures texts in the shipped fonts for the layout of drawings. */
export async function fontMeasure(): Promise<FontMeasure> {
  const fonts = await shippedFonts();
  const widths = new Map<string, number>();
  return {
    fontFor: (text) => fontFor(text, fonts),
    widthOf: (text, name, size) => {
      const key = `${name} ${text}`;
      let width = widths.get(key);
      if (width === undefined) {
        const { font } = fonts.get(name)!;
        width = font.layout(text).advanceWidth / font.unitsPerEm;
        widths.set(key, width);
      }
      return width * size;
    },
  };
}
