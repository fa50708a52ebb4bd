import { PDFDocument } from 'pdf-lib';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pageRects } from '../../src/core/chart/files/chartPages';
import { hexToRgb, rgbToHex } from '../../src/core/colour/rgb';
import type { Database } from '../../src/data/engine/database';
import { chartFile, chartPng, clothPng } from '../../src/server/chart/chartFiles';
import { printedChart } from '../../src/server/chart/chartOut';
import { clothPicture } from '../../src/server/chart/pictures';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { drawnPaths, fontsOf, words } from './pdfReader';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const legend = [
  line(1, { hex: '#d8432b', symbol: 'A', code: '412' }),
  line(2, { hex: '#2f6f8f', symbol: '★', code: '77' }),
  line(3, { hex: '#1c1a17', symbol: 'W', code: '1203', drawing: 'M0 0L100 0L50 100Z' }),
];
const rows = ['1123', '2.33', '3211'];

describe('the chart as a picture', () => {
  it('has one pixel a cell in the colours of the sheet, for another decoder too, and no ink on bare cells', async () => {
    const chart = chartOfRows(...rows);
    const image = PNG.sync.read(Buffer.from(await chartPng(chart, legend)));
    expect([image.width, image.height]).toEqual([4, 3]);
    const hexes = Array.from(chart.cells, (_, i) =>
      image.data[i * 4 + 3] === 0 ? null : rgbToHex([...image.data.subarray(i * 4, i * 4 + 3)] as never),
    );
    expect(hexes).toEqual(Array.from(chart.cells, (cell) => legend[cell - 1]?.hex ?? null));
  });
});

describe('the picture of a canvas', () => {
  it('is drawn once as long as nothing that is seen on it changes, and is never that of another one', async () => {
    const drawn = { chart: chartOfRows(...rows), legend, laid: null, width: 640 };
    const bare = new Uint8Array(2);
    const [other, bright] = [chartOfRows('1123', '2.33', '3212'), line(2, { hex: '#ffffff' })];
    const all = [
      drawn,
      { ...drawn, chart: other },
      { ...drawn, chart: { ...drawn.chart, width: 3, height: 4 } },
      { ...drawn, legend: legend.with(1, bright) },
      { ...drawn, laid: bare },
      { ...drawn, laid: bare.with(0, 0b10) },
      { ...drawn, laid: new Uint8Array() },
      { ...drawn, width: 2 },
    ];
    const pictures: Uint8Array[] = [];
    for (const each of all) pictures.push(await clothPicture(each));
    expect(pictures.map((png) => [...png])).toEqual(
      await Promise.all(all.map(async (each) => [...(await clothPng(each))])),
    );
    expect(new Set(pictures.map((png) => Buffer.from(png).toString('base64'))).size).toBe(all.length - 1);
    // Read anew from the shelf, with another name and amount.
    const again = structuredClone({ ...drawn, legend: legend.with(0, { ...legend[0]!, code: '1' }) });
    expect(await clothPicture(again)).toBe(pictures[0]);
  });
});

describe('the chart as SVG', () => {
  it('shows every cell in its colour with its symbol over it, when another program draws it', async () => {
    const chart = chartOfRows(...rows);
    const canvas = { ...(await shelve(database, legend, chart)), title: 'Owls & <moons>' };
    const svg = (await chartFile({ chart, legend, canvas, as: 'svg' })) as string;
    expect(svg).toContain('width="10mm" height="7.5mm"');
    expect(svg).toContain('<title>Owls &amp; &lt;moons&gt;</title>');
    const side = 40;
    const pixels = await sharp(Buffer.from(svg), { density: 406.4 })
      .resize(4 * side, 3 * side)
      .removeAlpha()
      .raw()
      .toBuffer();
    const at = (x: number, y: number) => [
      ...pixels.subarray((y * 4 * side + x) * 3, (y * 4 * side + x) * 3 + 3),
    ];
    chart.cells.forEach((cell, i) => {
      const [x, y] = [(i % 4) * side, Math.floor(i / 4) * side];
      const ground = cell === 0 ? [243, 238, 229] : hexToRgb(legend[cell - 1]!.hex!);
      // A corner of the cell, where no symbol reaches.
      for (const [p, part] of at(x + 3, y + side - 3).entries()) {
        expect(Math.abs(part - ground[p]!)).toBeLessThanOrEqual(2);
      }
      let inked = 0;
      for (let dy = 2; dy < side - 2; dy++) {
        for (let dx = 2; dx < side - 2; dx++) {
          const apart = at(x + dx, y + dy).reduce((sum, part, p) => sum + Math.abs(part - ground[p]!), 0);
          if (apart > 120) inked++;
        }
      }
      if (cell === 0) expect(inked).toBe(0);
      else expect(inked).toBeGreaterThan(side * side * 0.02);
    });
  });
});

describe('pages of a printed chart', () => {
  it('cover every cell once, in whole blocks of ten', () => {
    const area = { x: 100, y: 20, width: 137, height: 205 };
    const { rects, columns, rows: down } = pageRects({ paper: 'a4', cellMm: 3.5, area });
    expect(rects).toHaveLength(columns * down);
    expect(rects.reduce((sum, { width, height }) => sum + width * height, 0)).toBe(137 * 205);
    for (const { x, y } of rects) expect([(x - area.x) % 10, (y - area.y) % 10]).toEqual([0, 0]);
  });
});

describe('the chart as PDF', () => {
  it('measures what it says, writes every symbol in its cell, and ends with the legend', async () => {
    const columns = Array.from({ length: 60 }, (_, x) => String((x % 3) + 1)).join('');
    const chart = chartOfRows(...new Array(12).fill(columns));
    const canvas = await shelve(database, legend, chart, { title: 'Night owls' });
    const wish = { paper: 'a4' as const, ink: 'colour' as const, cellMm: 3.5, every: 25 };
    const bytes = await printedChart(database, canvas, wish, null);
    const document = await PDFDocument.load(bytes);
    // 60 columns of 3.5 mm take two pages of A4; the legend is the third.
    expect(document.getPageCount()).toBe(3);
    const { fonts, embedded } = fontsOf(document);
    expect(embedded).toBe(fonts);
    const first = await words(bytes, 1);
    const texts = first.map(({ text }) => text);
    expect(texts).toContain('Night owls');
    expect(texts).toContain('Page 1 of 2: columns 1 to 50, rows 1 to 12');
    expect(texts).toContain('Right of it page 2');
    // Columns 1, 4, 7 … of 50 carry an A: 17 in each of 12 rows.
    expect(texts.filter((text) => text === 'A')).toHaveLength(17 * 12);
    expect(texts.filter((text) => text === '25')).toHaveLength(1);
    expect((await words(bytes, 2)).map(({ text }) => text)).toContain(
      'Page 2 of 2: columns 51 to 60, rows 1 to 12',
    );
    const [one, four] = first.filter(({ text }) => text === 'A').map(({ x }) => x);
    expect(four! - one!).toBeCloseTo(3 * 3.5, 2);
    const drills = drawnPaths(document, 0).filter(
      ({ width, height, paint }) =>
        paint === 'f' && Math.abs(width - 3.5) < 0.01 && Math.abs(height - 3.5) < 0.01,
    );
    // Page 1 has 50 × 12 drills in runs of one, each 3.5 mm square; the first lies right of margin and ruler.
    expect(drills).toHaveLength(600);
    expect(drills[0]!.x).toBeCloseTo(18, 2);
    const list = (await words(bytes, 3)).map(({ text }) => text);
    expect(list).toEqual(expect.arrayContaining(['412', '77', '1203', '240']));
  });

  it('says so when it would be a book', async () => {
    const chart = { width: 1000, height: 1000, cells: new Uint16Array(1_000_000).fill(1) };
    const canvas = await shelve(database, legend, chart);
    const wish = { paper: 'a4' as const, ink: 'black' as const, cellMm: 10, every: 50 };
    await expect(printedChart(database, canvas, wish, null)).rejects.toThrow('Choose smaller squares.');
  });
});
