import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { create, type Font } from 'fontkit';
import PDFDocument from 'pdfkit';
import { mmToPoints, PAPERS, type PaperName } from '../core/kitup/labelSheet';

/** Shipped fonts in the order in which a symbol looks for its glyph. */
const FONT_FILES = {
  words: '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff',
  codes: '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-600-normal.woff',
  symbols: '@fontsource/noto-sans-math/files/noto-sans-math-latin-400-normal.woff',
  moreSymbols: '@fontsource/noto-sans-symbols-2/files/noto-sans-symbols-2-symbols-400-normal.woff',
} as const;
type FontName = keyof typeof FONT_FILES;

export type Pdf = InstanceType<typeof PDFDocument>;

/** The fonts of a document by what they hold. */
export interface PdfFonts {
  /** The first shipped font that has every glyph of the text; null when none has. */
  fontFor(text: string): FontName | null;
}

/** A document without pages, fonts registered under their names and embedded where they are used. */
export async function newPdf(paper: PaperName, title: string): Promise<{ document: Pdf; fonts: PdfFonts }> {
  const fonts = await loadFonts();
  const { widthMm, heightMm } = PAPERS[paper];
  const document = new PDFDocument({
    size: [mmToPoints(widthMm), mmToPoints(heightMm)],
    margin: 0,
    autoFirstPage: false,
    info: { Title: title, Creator: 'Oculent' },
  });
  for (const [name, font] of fonts) document.registerFont(name, font.bytes);
  return { document, fonts: { fontFor: (text) => fontFor(text, fonts) } };
}

/** Ends a document and gives its bytes. */
export function writtenPdf(document: Pdf): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    document.on('data', (part: Buffer) => parts.push(part));
    document.on('end', () => resolve(new Uint8Array(Buffer.concat(parts))));
    document.on('error', reject);
    document.end();
  });
}

interface LoadedFont {
  bytes: Buffer;
  font: Font;
}

async function loadFonts(): Promise<Map<FontName, LoadedFont>> {
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

/** The first shipped font that has every glyph of the text; null when none has. */
function fontFor(text: string, fonts: Map<FontName, LoadedFont>): FontName | null {
  for (const name of ['codes', 'symbols', 'moreSymbols'] as const) {
    const font = fonts.get(name)!.font;
    if ([...text].every((glyph) => font.hasGlyphForCodePoint(glyph.codePointAt(0)!))) return name;
  }
  return null;
}
