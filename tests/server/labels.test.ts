import { randomUUID } from 'node:crypto';
import jsQr from 'jsqr';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { usualSheet } from '../../src/core/labels/sheet';
import { STARTING_LAYOUTS, startStorage } from '../../src/core/storage/drawStorage';
import { canvasIdsEnding, legendOf } from '../../src/data/canvas';
import type { Database } from '../../src/data/engine/database';
import { putKitupPlan, replaceAllotment } from '../../src/data/kitup';
import { putLabelSheet } from '../../src/data/labels';
import { putStorage } from '../../src/data/storage';
import { putDrawing, putLidMark } from '../../src/data/symbols';
import { labelDrawings } from '../../src/server/labels/print';
import { labelsToPrint, labelsView, unprintableView } from '../../src/server/labels/view';
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

  it('are drawn as SVG mark by mark, as they are described', async () => {
    const text = { kind: 'text', x: 5, y: 8.12345, font: 'words', size: 3, fill: '#111111' } as const;
    const svg = await drawingSvg({
      ...{ widthMm: 30, heightMm: 20 },
      marks: [
        { kind: 'rect', x: 1, y: 2, width: 3.00049, height: 4, stroke: '#222222' },
        { kind: 'circle', x: 9, y: 9, radius: 2, fill: '#333333' },
        { kind: 'line', x1: 0, y1: 1, x2: 2, y2: 3, stroke: '#444444', width: 0.2 },
        { kind: 'path', x: 4, y: 5, scale: 0.125, d: 'M0 0L8 0L8 8Z', fill: '#555555' },
        { ...text, text: 'Moss', anchor: 'start' },
        { ...text, text: 'مرحبا Dusk', anchor: 'middle' },
      ],
    });
    const elements = svg.split('\n').filter((each) => !/^<(svg|style|\/svg)/.test(each));
    expect(elements.slice(0, 5)).toEqual([
      '<rect width="30" height="20" fill="#ffffff"/>',
      '<rect x="1" y="2" width="3" height="4" fill="none" stroke="#222222" stroke-width="0.15"/>',
      '<circle cx="9" cy="9" r="2" fill="#333333"/>',
      '<path d="M0 1L2 3" stroke="#444444" stroke-width="0.2"/>',
      '<path transform="translate(4 5) scale(0.125000)" d="M0 0L8 0L8 8Z" fill="#555555" fill-rule="evenodd"/>',
    ]);
    // A text names the fonts of its letters, each embedded once.
    const families = elements.slice(5).map((each) => /font-family="([^"]*)"/.exec(each)![1]!.split(','));
    expect(families.map(({ length }) => length)).toEqual([1, 2]);
    const embedded = [...svg.matchAll(/@font-face\{font-family:"([^"]+)"/g)].map(([, name]) => `'${name}'`);
    expect(embedded.sort()).toEqual([...new Set(families.flat())].sort());
    expect(elements[5]).toMatch(/^<text x="5" y="8.123" .* fill="#111111">Moss<\/text>$/);
    expect(elements[6]).toMatch(/ text-anchor="middle">مرحبا Dusk<\/text>$/);
  });

  it('are counted by where the colours live, each canvas by itself', async () => {
    const [kit, other] = [
      await shelve(database, [line(1), line(2), line(3)], null),
      await shelve(database, [line(1)], null),
    ];
    const layout = STARTING_LAYOUTS.find(({ key }) => key === 'strip')!;
    const storage = startStorage(randomUUID(), layout, layout.name);
    await putStorage(database, storage, new Date().toISOString());
    await putKitupPlan(database, kit.id, {
      ...{ storageIds: [storage.id], order: 'code', leave: 'fewest drills', goals: [], several: false },
      ...{ results: [], offer: null },
    });
    await replaceAllotment(database, kit.id, [
      { line: 2, nth: 1, storageId: storage.id, slot: storage.trays[0]!.slots[0]!.id, locked: false },
    ]);
    expect((await labelsView(database, kit)).counts).toEqual({ all: 3, pots: 1, bags: 2, leftovers: 0 });
    // Without a plan pots are numbered in code order.
    expect((await labelsView(database, other)).counts).toEqual({ all: 1, pots: 1, bags: 0, leftovers: 0 });
  });

  it('name what no font here prints, and nothing else', async () => {
    const names = [line(1, { name: 'Moss' }), line(2, { name: 'Du\ue123sk' })];
    const kit = await shelve(database, names, null);
    expect(await unprintableView(database, kit)).toMatchObject({
      parts: ['the name of 402'],
      sentence: expect.stringContaining('the name of 402'),
    });
    expect(await unprintableView(database, canvas)).toEqual({ parts: [], sentence: null });
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
