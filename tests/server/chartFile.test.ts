import { PNG } from 'pngjs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { hexToRgb, type Rgb } from '../../src/core/colour/rgb';
import type { Database } from '../../src/data/engine/database';
import { readChartFor } from '../../src/server/chart/chartFile';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const HEXES = ['#d8432b', '#2f6f8f', '#f2e8c9'];
const legend = HEXES.map((hex, i) => line(i + 1, { hex, code: String(101 + i) }));
const ROWS = ['11122333', '11122333', '33322111', '33322111'];
const CELLS = [...chartOfRows(...ROWS).cells];

/** That chart as raw pixels, each cell so many pixels wide and high. */
function pixels(scale: number): { width: number; height: number; data: Uint8Array } {
  const [width, height] = [8 * scale, 4 * scale];
  const data = new Uint8Array(width * height * 3);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const cell = CELLS[Math.floor(y / scale) * 8 + Math.floor(x / scale)]!;
      data.set([...hexToRgb(HEXES[cell - 1]!)], (y * width + x) * 3);
    }
  }
  return { width, height, data };
}

function encoded(scale: number) {
  const { width, height, data } = pixels(scale);
  return sharp(data, { raw: { width, height, channels: 3 } });
}

async function read(body: Uint8Array | string, type: string, nearest = false, lines = legend) {
  const canvas = await shelve(database, lines, null, { width: 8, height: 4 });
  const request = new Request('http://127.0.0.1/', {
    method: 'PUT',
    body: typeof body === 'string' ? body : Uint8Array.from(body),
    headers: { 'content-type': type },
  });
  const { chart, report } = await readChartFor(database, canvas, request, {
    nearest,
    words: null,
    corners: null,
  });
  return { ...report, chart };
}

describe('a chart file', () => {
  it('is a PNG of any depth, transparency or scale', async () => {
    const exact = await read(await encoded(1).png().toBuffer(), 'image/png');
    expect([...exact.chart.cells]).toEqual(CELLS);
    expect(exact.notices).toEqual([]);
    const deep = await read(await encoded(6).toColourspace('rgb16').png().toBuffer(), 'image/png');
    expect([...deep.chart.cells]).toEqual(CELLS);
    const palette = await read(await encoded(6).png({ palette: true }).toBuffer(), 'image/png');
    expect([...palette.chart.cells]).toEqual(CELLS);
    // Written by a second encoder, with a hole.
    const image = new PNG({ width: 8, height: 4 });
    CELLS.forEach((cell, i) => {
      image.data.set([...hexToRgb(HEXES[cell - 1]!), i === 5 ? 0 : 255], i * 4);
    });
    const holed = await read(PNG.sync.write(image), 'image/png');
    expect([...holed.chart.cells]).toEqual(CELLS.map((cell, i) => (i === 5 ? 0 : cell)));
  });

  it('is a WebP, taken as exact only where it keeps its pixels', async () => {
    const kept = await read(await encoded(7).webp({ lossless: true }).toBuffer(), 'image/webp');
    expect([...kept.chart.cells]).toEqual(CELLS);
    expect(kept.notices.join()).not.toContain('compressed');
    const lossy = await read(await encoded(7).webp({ quality: 70 }).toBuffer(), 'image/webp');
    expect([...lossy.chart.cells]).toEqual(CELLS);
    expect(lossy.notices.join()).toContain('compressed');
  });

  it('is a JPEG with larger cells; one pixel a cell is blurred, which the report shows', async () => {
    const large = await read(await encoded(12).jpeg({ quality: 60 }).toBuffer(), 'image/jpeg');
    expect([...large.chart.cells]).toEqual(CELLS);
    expect(large.nearly.length).toBeGreaterThan(0);
    const tiny = await encoded(1).jpeg({ quality: 40 }).toBuffer();
    const fringed = await read(tiny, 'image/jpeg');
    expect(fringed.notices[0]).toContain('a PNG is exact');
    expect(fringed.unmatched.length + fringed.nearly.length).toBeGreaterThan(0);
    const nearest = await read(tiny, 'image/jpeg', true);
    expect(nearest.unmatched).toEqual([]);
    expect(nearest.chart.cells.every((cell) => cell > 0)).toBe(true);
  });

  it('lies upright when a camera turned it', async () => {
    // EXIF orientation 6: the picture was stored turned by a quarter to the left.
    const turned = await sharp(await encoded(12).png().toBuffer())
      .rotate(-90)
      .jpeg({ quality: 95 })
      .withMetadata({ orientation: 6 })
      .toBuffer();
    expect([...(await read(turned, 'image/jpeg')).chart.cells]).toEqual(CELLS);
  });

  it('is a grid parted by tab, with codes', async () => {
    const grid = ROWS.map((row) => [...row].map((cell) => 100 + Number(cell)).join('\t')).join('\n');
    expect([...(await read(grid, 'text/tab-separated-values')).chart.cells]).toEqual(CELLS);
  });

  it('is refused in words when it is something else, ragged, or comes too early', async () => {
    await expect(read('%PDF-', 'application/pdf')).rejects.toThrow('A chart comes as a picture');
    await expect(read('GIF89a', 'image/png')).rejects.toThrow('This GIF is damaged');
    await expect(read(Uint8Array.of(0xff, 0xd8, 0xff, 0xe0, 1, 2), 'image/jpeg')).rejects.toThrow(
      'This JPEG is damaged',
    );
    await expect(read(Uint8Array.of(0x41, 0xe9, 0x2c), 'text/csv')).rejects.toThrow('not UTF-8 text');
    await expect(read('101,101\n101', 'text/csv')).rejects.toThrow('The grid has 2 rows; the canvas has 4.');
    await expect(read('{"rows":', 'application/json')).rejects.toThrow('not JSON, or it is cut short');
    await expect(read('x', 'text/csv', false, [])).rejects.toThrow('Read the colour list first');
    const colourless = legend.map((each) => ({ ...each, hex: null }));
    await expect(read(await encoded(1).png().toBuffer(), 'image/png', false, colourless)).rejects.toThrow(
      'The colour list gives no tints',
    );
    const odd: Rgb = [1, 2, 3];
    const other = await sharp({
      create: { width: 9, height: 4, channels: 3, background: { r: odd[0], g: odd[1], b: odd[2] } },
    })
      .png()
      .toBuffer();
    await expect(read(other, 'image/png')).rejects.toThrow('9 × 4 pixels, but the canvas is 8 × 4 squares');
  });
});
