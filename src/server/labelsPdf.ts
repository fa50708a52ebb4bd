import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { create, type Font } from 'fontkit';
import PDFDocument from 'pdfkit';
import type { Shape } from '../core/canvas/canvas';
import { symbolOrKey } from '../core/canvas/legend';
import { inkOn } from '../core/colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../core/colour/rgb';
import {
  fillSheet,
  labelBoxes,
  mmToPoints,
  PAPERS,
  type PaperName,
  POT_LABEL,
} from '../core/kitup/labelSheet';
import type { Pot } from '../core/kitup/pots';

/** Shipped fonts in the order in which a symbol looks for its glyph. */
const FONT_FILES = {
  words: '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff',
  codes: '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-600-normal.woff',
  symbols: '@fontsource/noto-sans-math/files/noto-sans-math-latin-400-normal.woff',
  moreSymbols: '@fontsource/noto-sans-symbols-2/files/noto-sans-symbols-2-symbols-400-normal.woff',
} as const;
type FontName = keyof typeof FONT_FILES;

/**
 * Draws one label a pot: symbol, code, key number, pot number and a chip in the drill's colour and shape.
 * @returns a PDF with embedded fonts, true to size when printed at 100 %
 */
export async function labelsPdf(
  title: string,
  shape: Shape,
  pots: readonly Pot[],
  paper: PaperName,
): Promise<Uint8Array> {
  const fonts = await loadFonts();
  const { widthMm, heightMm } = PAPERS[paper];
  const document = new PDFDocument({
    size: [mmToPoints(widthMm), mmToPoints(heightMm)],
    margin: 0,
    autoFirstPage: false,
    info: { Title: `Pot labels: ${title}`, Creator: 'Oculent' },
  });
  const finished = collect(document);
  for (const [name, font] of fonts) document.registerFont(name, font.bytes);
  const sheet = fillSheet(paper, POT_LABEL.widthMm, POT_LABEL.heightMm);
  const boxes = labelBoxes(sheet, pots.length);
  let page = -1;
  boxes.forEach((box, i) => {
    if (box.page !== page) {
      document.addPage();
      page = box.page;
    }
    document.save().translate(mmToPoints(box.xMm), mmToPoints(box.yMm));
    drawLabel(document, pots[i]!, shape, fonts);
    document.restore();
  });
  document.end();
  return finished;
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

type Pdf = InstanceType<typeof PDFDocument>;

function drawLabel(document: Pdf, { pot, line }: Pot, shape: Shape, fonts: Map<FontName, LoadedFont>): void {
  const mm = mmToPoints;
  const { widthMm, heightMm } = POT_LABEL;
  document.lineWidth(0.4).strokeColor('#8a8177').rect(0, 0, mm(widthMm), mm(heightMm)).stroke();

  const hex = line.hex ?? UNKNOWN_COLOUR;
  const chipMm = heightMm - 5;
  if (shape === 'round') document.circle(mm(2.5 + chipMm / 2), mm(heightMm / 2), mm(chipMm / 2));
  else document.rect(mm(2.5), mm(2.5), mm(chipMm), mm(chipMm));
  document.lineWidth(0.3).fillAndStroke(hex, '#5d554c');

  // A symbol that no shipped font has gives way to the key number, which is printed anyway.
  const wanted = symbolOrKey(line);
  const symbolFont = fontFor(wanted, fonts);
  const symbol = symbolFont ? wanted : line.keyNumber;
  const size = [...symbol].length > 2 ? 16 : [...symbol].length > 1 ? 22 : 32;
  document
    .font(symbolFont ?? 'codes')
    .fontSize(size)
    .fillColor(inkOn(hexToRgb(hex)));
  const symbolWidth = document.widthOfString(symbol);
  document.text(
    symbol,
    mm(2.5 + chipMm / 2) - symbolWidth / 2,
    mm(heightMm / 2) - capMiddle(document, size),
    {
      lineBreak: false,
    },
  );

  const left = mm(2.5 + chipMm + 2.5);
  const width = mm(widthMm) - left - mm(1.5);
  document.fillColor('#17130f').font(fontFor(line.code, fonts) ?? 'codes');
  fitText(document, line.code, left, mm(2.2), width, 17);
  document.font('words');
  fitText(document, `Key ${line.keyNumber}`, left, mm(9.6), width, 9.5);
  fitText(document, `Pot ${pot}`, left, mm(13.4), width, 9.5);
  if (line.finish !== 'plain') fitText(document, line.finish, left, mm(17.2), width, 8.5);
}

/** Height from the top of a text line to the middle of its capitals, in points. */
function capMiddle(document: Pdf, size: number): number {
  const ascender = (document as unknown as { _font: { ascender: number } })._font.ascender;
  return (ascender / 1000) * size - 0.34 * size;
}

function fitText(document: Pdf, text: string, x: number, y: number, width: number, size: number): void {
  document.fontSize(size);
  const natural = document.widthOfString(text);
  if (natural > width) document.fontSize((size * width) / natural);
  document.text(text, x, y, { lineBreak: false });
}

function collect(document: Pdf): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    document.on('data', (part: Buffer) => parts.push(part));
    document.on('end', () => resolve(new Uint8Array(Buffer.concat(parts))));
    document.on('error', reject);
  });
}
