import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as harfbuzz from 'harfbuzzjs';
import { decodePDFRawStream, PDFDocument, PDFRawStream, PDFString } from 'pdf-lib';
import { describe, expect, it } from 'vitest';
import { usualSheet } from '../../src/core/labels/sheet';
import { labelsPdf, labelsSvg } from '../../src/server/labels/print';
import { typesetFor } from '../../src/server/print/typeset';
import { inVisualOrder, levelsOf, mirrored } from '../../src/server/print/visualOrder';
import { line } from '../core/samples';
import { fontsOf, words } from './pdfReader';

/** Names of colours as kits from many countries carry them; the words are ours. */
const NAMES = {
  Polish: 'Żółć gęsiej łąki',
  Turkish: 'Açık yeşil, ığdır',
  Vietnamese: 'Xanh biếc nhạt',
  Greek: 'Γαλάζιο ουρανού',
  Cyrillic: 'Тёмно-синий їжак',
  Chinese: '天空蓝',
  Japanese: 'そらいろ空色',
  Korean: '하늘색 파랑',
  Arabic: 'أزرق سماوي',
  Hebrew: 'כחול שמיים',
  Devanagari: 'हिरवा आसमानी',
  Thai: 'สีน้ำเงินเข้ม',
};

const print = (names: string[]) => ({
  format: 'cards' as const,
  sheet: { ...usualSheet('cards'), qr: false },
  labels: names.map((name, i) => ({
    line: line(i + 1, { name, code: `${500 + i}` }),
    place: `pot ${i + 1}`,
    warnsOf: null,
    address: null,
    leftover: null,
  })),
  kit: { shape: 'square' as const, title: 'Scripts' },
  start: 1,
});

const letters = (text: string) => text.normalize('NFC').replace(/\s/g, '');
/** Scripts whose glyphs are not their letters one by one; they are read by the text that goes along. */
const SHAPED = ['Arabic', 'Hebrew', 'Devanagari', 'Thai'];

describe('labels in every script', () => {
  it.each(Object.entries(NAMES))('are read back from the PDF: %s', async (script, name) => {
    const bytes = await labelsPdf(print([name, 'Plain']));
    const document = await PDFDocument.load(bytes);
    const read = (await words(bytes)).map(({ text }) => text).join('');
    if (SHAPED.includes(script)) expect(actualTexts(document)).toContain(name);
    else expect(letters(read)).toContain(letters(name));
    expect(letters(read)).toContain('500');
    const { fonts, embedded } = fontsOf(document);
    expect(embedded).toBe(fonts);
  });

  it('come as SVG with just their letters', async () => {
    const svg = await labelsSvg({ print: print(Object.values(NAMES)), page: 1 });
    for (const name of Object.values(NAMES).slice(0, 6)) expect(svg).toContain(name);
    expect(svg.length).toBeLessThan(400_000);
  });

  it('leave out a name that no font here has, and keep all else', async () => {
    const bytes = await labelsPdf(print(['\u{13000}\u{13001}']));
    const read = (await words(bytes)).map(({ text }) => text).join(' ');
    expect(read).toContain('500');
    expect(read).toContain('Pot 1');
    expect(read).not.toContain('□');
  });
});

describe('a text in its fonts', () => {
  // HarfBuzz is the reference of OpenType shaping; it shapes the shipped files as they are, at the same weight.
  it.each([
    ['noto-sans-arabic', 'arabic', NAMES.Arabic.split(' ')[0]!],
    ['noto-sans-devanagari', 'devanagari', NAMES.Devanagari.split(' ')[0]!],
    ['noto-sans-devanagari', 'devanagari', 'क्षत्रिय'],
    ['noto-sans-thai', 'thai', NAMES.Thai],
    ['noto-sans-hebrew', 'hebrew', NAMES.Hebrew.split(' ')[0]!],
  ])('is as wide as HarfBuzz shapes it: %s', async (family, piece, word) => {
    const typeset = await typesetFor([word]);
    const file = join(
      'node_modules/@fontsource-variable',
      family,
      `files/${family}-${piece}-wght-normal.woff2`,
    );
    expect(typeset.widthOf(word, 'words', 1000)).toBeCloseTo(await widthByHarfBuzz(file, word), 0);
  });

  it('takes one design for a whole word, and says what it lacks', async () => {
    const typeset = await typesetFor(['Xanh biếc', 'blue']);
    expect(typeset.runsOf('Xanh biếc', 'words').map(({ font }) => font.split(' ')[0])).toEqual([
      'words',
      'noto-sans',
      'noto-sans',
      'noto-sans',
    ]);
    expect(typeset.canPrint('biếc')).toBe(true);
    expect(typeset.canPrint('a\u{13000}')).toBe(false);
    expect(
      typeset
        .runsOf('a\u{13000}', 'words')
        .map(({ text }) => text)
        .join(''),
    ).toBe('a□');
    expect(typeset.runsOf('', 'words')).toEqual([]);
  });
});

describe('directions', () => {
  const visual = (text: string) => {
    const levels = levelsOf(text);
    const units = [...text].map((letter, i) => ({ text: mirrored(letter, levels[i]!), level: levels[i]! }));
    return inVisualOrder(units)
      .map((unit) => unit.text)
      .join('');
  };
  /** Capitals stand for letters read from right to left, as in the annex. */
  const asHebrew = (text: string) =>
    text.replace(/[A-Z]/g, (letter) => String.fromCharCode(0x5d0 + letter.charCodeAt(0) - 65));

  // Unicode Standard Annex 9, section 3.4, examples of rule L2 (values from memory).
  it.each([
    ['car means CAR.', 'car means RAC.'],
    ['he said “it is 123, CBA, ok”', 'he said “it is 123, ABC, ok”'],
  ])('follow the Unicode annex: %s', (logical, shown) => {
    expect(visual(asHebrew(logical))).toBe(asHebrew(shown));
  });

  it('set a number in brackets after an Arabic name', async () => {
    const text = `${NAMES.Arabic} (12)`;
    const typeset = await typesetFor([text]);
    const shown = inVisualOrder(typeset.runsOf(text, 'words')).map((run) => run.text);
    expect(shown.slice(0, 3).join('')).toBe('(12) ');
    const kana = (await typesetFor(['そら色'])).runsOf('そら色', 'words');
    expect(kana.every(({ font }) => font.startsWith('noto-sans-jp'))).toBe(true);
  });

  it('turn brackets round and keep numbers upright', () => {
    expect(visual(asHebrew('ABC (12) DE'))).toBe(asHebrew('ED (12) CBA'));
  });
});

/** What a document says that its shaped texts read as. */
function actualTexts(document: PDFDocument): string[] {
  return document.context
    .enumerateIndirectObjects()
    .flatMap(([, object]) => (object instanceof PDFRawStream ? [object] : []))
    .map((stream) => Buffer.from(decodePDFRawStream(stream).decode()).toString('latin1'))
    .flatMap((content) => [...content.matchAll(/\/ActualText \(((?:\\.|[^\\)])*)\)/gs)])
    .map(([, raw]) => PDFString.of(raw!).decodeText());
}

/** Advance of a word in thousandths, shaped by HarfBuzz at weight 400. */
async function widthByHarfBuzz(file: string, word: string): Promise<number> {
  const subset = (await import('subset-font')).default;
  const bytes = await subset(readFileSync(file), word + word.normalize('NFKD'), {
    targetFormat: 'sfnt',
    variationAxes: { wght: 400 },
  });
  const { Blob: HbBlob, Face, Font: HbFont, Buffer: HbBuffer, shape } = harfbuzz;
  const face = new Face(new HbBlob(new Uint8Array(bytes).buffer), 0);
  const font = new HbFont(face);
  const buffer = new HbBuffer();
  buffer.addText(word);
  buffer.guessSegmentProperties();
  shape(font, buffer);
  const advance = buffer.getGlyphPositions().reduce((sum, { xAdvance }) => sum + xAdvance, 0);
  return (advance * 1000) / face.upem;
}
