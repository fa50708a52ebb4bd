import jsQr from 'jsqr';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { usualSheet } from '../../src/core/labels/sheet';
import { canvasIdsEnding, legendOf } from '../../src/data/canvas';
import type { Database } from '../../src/data/engine/database';
import { putLabelSheet } from '../../src/data/labels';
import { putDrawing, putLidMark } from '../../src/data/symbols';
import { labelDrawings } from '../../src/server/labels/print';
import { labelsToPrint, labelsView } from '../../src/server/labels/view';
import { drawingPdf } from '../../src/server/print/drawingPdf';
import { drawingSvg } from '../../src/server/print/drawingSvg';
import { line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { drawnPaths, fontsOf, MM, qrCodes, words } from './pdfReader';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const ORIGIN = 'http://127.0.0.1:4470';

describe('labels', () => {
  let canvas: Canvas;
  const legend = Array.from({ length: 48 }, (_, i) =>
    line(i + 1, {
      code: String(1000 + i),
      symbol: ['★', 'Ω', '⬢', 'a', '(', '⊕'][i % 6]!,
      finish: i === 3 ? 'metallic' : 'plain',
      name: i === 4 ? 'Q & A <b>' : `Colour ${i + 1}`,
    }),
  );
  const print = (format: 'dots' | 'pots' | 'cards' | 'strips' | 'list', more: object = {}) =>
    labelsToPrint(database, canvas, { format, which: 'all', start: 1, ...more }, ORIGIN).then(labelDrawings);
  beforeAll(async () => {
    canvas = await shelve(database, legend, null, { title: 'Labelled' });
  });

  // ISO 216 and the sizes of the sheet, measured in the file by pdf-lib: 1 mm = 72 ÷ 25.4 pt.
  it('are true to the tenth of a millimetre in the PDF', async () => {
    const dots = await PDFDocument.load(await drawingPdf({ title: 'T', pages: await print('dots') }));
    expect(dots.getPageCount()).toBe(1);
    expect(dots.getPage(0).getWidth() * MM).toBeCloseTo(210, 3);
    expect(dots.getPage(0).getHeight() * MM).toBeCloseTo(297, 3);
    const circles = drawnPaths(dots, 0).filter(({ width }) => Math.abs(width - 25) < 0.05);
    expect(circles).toHaveLength(48);
    for (const { height } of circles) expect(height).toBeCloseTo(25, 1);
    const columns = [...new Set(circles.map(({ x }) => x.toFixed(1)))].map(Number).sort((a, b) => a - b);
    // Seven columns of 25 mm and gaps of 3: (210 − 193) ÷ 2 = 8.5 mm left and right.
    expect(columns).toHaveLength(7);
    expect(columns[0]).toBeCloseTo(8.5, 1);
    expect(columns[1]! - columns[0]!).toBeCloseTo(28, 1);

    const cards = await PDFDocument.load(await drawingPdf({ title: 'T', pages: await print('cards') }));
    expect(cards.getPageCount()).toBe(8);
    expect(cards.getPage(7).getWidth() * MM).toBeCloseTo(127, 2);
    expect(cards.getPage(7).getHeight() * MM).toBeCloseTo(76.2, 2);
  });

  it('carry their words and symbols, and embed every font', async () => {
    const bytes = await drawingPdf({ title: 'T', pages: await print('cards') });
    const text = (await words(bytes)).map((word) => word.text);
    for (const word of ['1000', '1005', 'Colour 1', 'Q & A <b>', '★', 'Ω', '⬢', 'a', '(', '⊕'])
      expect(text).toContain(word);
    expect(text).toContain('100 drills · metallic');
    const { fonts, embedded } = fontsOf(await PDFDocument.load(bytes));
    expect(fonts).toBeGreaterThanOrEqual(3);
    expect(embedded).toBe(fonts);
  });

  it('have QR codes that another library reads out of the PDF', async () => {
    const cards = await PDFDocument.load(await drawingPdf({ title: 'T', pages: await print('cards') }));
    const read = qrCodes(cards, 0);
    const short = canvas.id.slice(-8).toUpperCase();
    expect(read.sort()).toEqual([1, 2, 3, 4, 5, 6].map((n) => `HTTP://127.0.0.1:4470/Q/${short}/${n}`));
    expect(await canvasIdsEnding(database, short.toLowerCase())).toEqual([canvas.id]);
  });

  it('are the same sheet as SVG: millimetres, embedded fonts, escaped words, a QR code that is read', async () => {
    const [page] = await print('cards');
    const svg = await drawingSvg(page!);
    expect(svg).toContain('width="127mm" height="76.2mm" viewBox="0 0 127 76.2"');
    expect(svg).toContain('Q &amp; A &lt;b&gt;');
    expect(svg.match(/@font-face/g)!.length).toBeGreaterThanOrEqual(3);
    expect(svg).not.toMatch(/(href|src)=|url\(http/);
    expect(svg.length).toBeLessThan(200_000);
    // Rendered by librsvg through sharp; the first card's code is decoded by jsQR.
    const code = page!.marks.find((mark) => mark.kind === 'path' && mark.d.length > 400)!;
    const rendered = await sharp(Buffer.from(svg), { density: 144 }).png().toBuffer();
    const scale = (await sharp(rendered).metadata()).width / 127;
    const [left, top] = code.kind === 'path' ? [code.x, code.y] : [0, 0];
    const { data, info } = await sharp(rendered)
      .extract({
        left: Math.round(left * scale),
        top: Math.round(top * scale),
        width: Math.round(17 * scale),
        height: Math.round(17 * scale),
      })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(jsQr(new Uint8ClampedArray(data), info.width, info.height)?.data).toMatch(/\/Q\/[0-9A-F]{8}\/1$/);
  });

  it('start at the first free place of a part-used sheet, and keep to what was measured', async () => {
    const first = (pages: Awaited<ReturnType<typeof print>>) =>
      pages[0]!.marks.find((mark) => mark.kind === 'rect')!;
    const usual = first(await print('pots'));
    const third = first(await print('pots', { start: 3 }));
    expect(third.x - usual.x).toBeCloseTo(128, 6);
    await putLabelSheet(database, 'pots', { ...usualSheet('pots'), marginLeftMm: 7, printerOffXMm: 0.4 });
    expect(usual.x - first(await print('pots')).x).toBeCloseTo(3.4, 6);
    expect((await labelsView(database, canvas)).sheets.pots.marginLeftMm).toBe(7);
  });

  it('list every colour on paper, with a head on each page', async () => {
    const bytes = await drawingPdf({ title: 'T', pages: await print('list') });
    const pages = (await PDFDocument.load(bytes)).getPageCount();
    for (let page = 1; page <= pages; page++) {
      const text = (await words(bytes, page)).map((word) => word.text);
      expect(text).toEqual(expect.arrayContaining(['Labelled', 'Code', 'Drills', 'Place']));
    }
  });

  it('print a drawn symbol as it was drawn, and a warning on a marked lid', async () => {
    await putDrawing(database, canvas.id, legend[0]!, 'M0 0L100 0L50 100Z');
    await putLidMark(database, canvas.id, 2, 1);
    expect((await legendOf(database, canvas.id))[0]!.drawing).toBe('M0 0L100 0L50 100Z');
    const marks = (await print('dots'))[0]!.marks;
    expect(marks.filter((mark) => mark.kind === 'path').map((mark) => mark.d)).toContain(
      'M0 0L100 0L50 100Z',
    );
    expect(marks.flatMap((mark) => (mark.kind === 'text' ? mark.text : []))).toContain('not 1000');
  });

  it('say so where there is nothing to print', async () => {
    await expect(print('dots', { which: 'bags' })).rejects.toThrow('lives in a bag');
    const empty = await shelve(database, [], null);
    await expect(
      labelsToPrint(database, empty, { format: 'dots', which: 'all', start: 1 }, ORIGIN),
    ).rejects.toThrow('none yet');
  });
});
