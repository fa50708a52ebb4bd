import { randomUUID } from 'node:crypto';
import type { APIRequestContext, Page } from '@playwright/test';
import sharp from 'sharp';
import writeExcelFile from 'write-excel-file/node';
import { patchy, type ScanLook, scanned } from '../core/chart/files/picture/scan';
import { expect, test } from './bench';

const HEXES = ['#d8432b', '#2f6f8f', '#f2e8c9', '#1c1a17', '#6aa84f', '#8e4fa8', '#e0a030', '#7a7f86'];
const [WIDTH, HEIGHT] = [40, 30];
const CELLS = patchy(WIDTH, HEIGHT, HEXES.length);

/** A canvas whose colour list counts just what the chart has. */
async function shelved(request: APIRequestContext, title: string): Promise<string> {
  const id = randomUUID();
  await request.post('/api/canvases', {
    data: { id, title, shape: 'square', pitchMm: 2.5, width: WIDTH, height: HEIGHT },
  });
  const rows = HEXES.map((hex, i) => {
    const drills = CELLS.filter((cell) => cell === i + 1).length;
    return `${i + 1}\t${'ABCDEFGH'[i]}\t${401 + i}\tColour ${i + 1}\t${hex}\t${drills}\t2`;
  });
  const { lines } = await (
    await request.post('/api/sheet-readings', {
      data: ['Key\tSymbol\tCode\tName\tHex\tDrills\tPackets', ...rows].join('\n'),
      headers: { 'content-type': 'text/plain' },
    })
  ).json();
  expect((await request.put(`/api/canvases/${id}/sheet`, { data: { lines } })).ok()).toBe(true);
  return id;
}

function picture(look: Partial<ScanLook>, cells: ArrayLike<number> = CELLS) {
  const whole = { width: WIDTH, height: HEIGHT, pitch: 12, marginPx: 20, ...look };
  const { width, height, rgba } = scanned(cells, HEXES, whole);
  return sharp(rgba, { raw: { width, height, channels: 4 } });
}

async function choose(page: Page, name: string, mimeType: string, buffer: Buffer): Promise<void> {
  await page.getByLabel('Choose a file').setInputFiles({ name, mimeType, buffer });
}

async function savedAs(page: Page, request: APIRequestContext, id: string): Promise<number> {
  await page.getByRole('button', { name: 'Save this chart' }).click();
  await page.waitForURL(`**/canvas/${id}/checkin`);
  const bytes = await (await request.get(`/api/canvases/${id}/chart`)).body();
  const cells = Array.from({ length: WIDTH * HEIGHT }, (_, i) =>
    bytes.readUInt16LE(bytes.length - 2 * (WIDTH * HEIGHT - i)),
  );
  return cells.filter((cell, i) => cell !== CELLS[i]).length;
}

const FILES: [string, string, string, () => Promise<Buffer>, RegExp][] = [
  [
    'scan.jpg',
    'image/jpeg',
    'a scan at 300 dots an inch with noise',
    () => picture({ pitch: 29.53, marginPx: 43, noise: 5 }).jpeg({ quality: 88 }).toBuffer(),
    /A square is 29\.53 × 29\.5\d pixels large/,
  ],
  [
    'lines.tiff',
    'image/tiff',
    'drawn lines, heavier every ten, as TIFF',
    () => picture({ pitch: 17.7, lines: 0.06, symbols: true }).tiff({ compression: 'lzw' }).toBuffer(),
    /A square is 17\.7 × 17\.7 pixels large/,
  ],
  [
    'small.gif',
    'image/gif',
    'small cells as GIF',
    () => picture({ pitch: 7, marginPx: 0 }).gif().toBuffer(),
    /A square is 7 × 7 pixels large/,
  ],
  [
    'grid.xlsx',
    'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    'a grid of symbols in a spreadsheet',
    async () => {
      const rows = Array.from({ length: HEIGHT }, (_, y) =>
        Array.from({ length: WIDTH }, (_, x) => ({
          value: 'ABCDEFGH'[CELLS[y * WIDTH + x]! - 1]!,
          type: String,
        })),
      );
      return Buffer.from(await writeExcelFile(rows).toBuffer());
    },
    /The words were read as symbols, all of them/,
  ],
];

for (const [name, type, what, file, notice] of FILES) {
  test(`an odd chart is read: ${what}`, async ({ page, request }) => {
    const id = await shelved(request, what);
    await page.goto(`/canvas/${id}/chart/read`);
    await choose(page, name, type, await file());
    await expect(page.getByText(notice)).toBeVisible({ timeout: 30_000 });
    const nearest = page.getByRole('button', { name: 'Use the nearest colour of the list for each' });
    const save = page.getByRole('button', { name: /^Save/ });
    await save.waitFor();
    if (await nearest.isVisible()) await nearest.click();
    await expect(page.getByRole('button', { name: 'Save this chart' })).toBeEnabled({ timeout: 30_000 });
    expect(await savedAs(page, request, id)).toBe(0);
  });
}

test('a chart that shows more than the canvas is refused, and read between corners that are marked', async ({
  page,
  request,
}) => {
  const id = await shelved(request, 'Marked by hand');
  // Six more columns on the right: another panel on the same paper.
  const wide = patchy(WIDTH + 6, HEIGHT, HEXES.length, 9).map((cell, i) => {
    const [x, y] = [i % (WIDTH + 6), Math.floor(i / (WIDTH + 6))];
    return x < WIDTH ? CELLS[y * WIDTH + x]! : cell;
  });
  const buffer = await picture({ width: WIDTH + 6, pitch: 15, marginPx: 30 }, wide)
    .png()
    .toBuffer();
  await page.goto(`/canvas/${id}/chart/read`);
  await choose(page, 'two.png', 'image/png', buffer);
  await expect(page.getByText(/mark the four corners of the chart on the picture/)).toBeVisible();

  // The first two by keys, the third by dragging, the last by a tap on its place.
  const places = [
    [30, 30],
    [30 + WIDTH * 15, 30],
    [30 + WIDTH * 15, 30 + HEIGHT * 15],
    [30, 30 + HEIGHT * 15],
  ] as const;
  const image = page.getByAltText('The file, with the corners of the chart');
  await expect.poll(() => image.evaluate((each: HTMLImageElement) => each.naturalWidth)).toBe(750);
  const ring = (name: string) => page.getByRole('button', { name: new RegExp(`^${name} corner`) });
  const where = async (name: string) => {
    const label = (await ring(name).getAttribute('aria-label'))!;
    return label.match(/\d+/g)!.map(Number) as [number, number];
  };
  const byKeys = async (name: string, [x, y]: readonly [number, number]) => {
    await ring(name).focus();
    for (const [axis, keys] of [
      [0, ['ArrowRight', 'ArrowLeft']],
      [1, ['ArrowDown', 'ArrowUp']],
    ] as const) {
      const off = [x, y][axis]! - (await where(name))[axis]!;
      const key = off > 0 ? keys[0] : keys[1];
      for (let i = 0; i < Math.floor(Math.abs(off) / 10); i++) await page.keyboard.press(`Shift+${key}`);
      for (let i = 0; i < Math.abs(off) % 10; i++) await page.keyboard.press(key);
    }
    expect(await where(name)).toEqual([x, y]);
  };
  await byKeys('Upper left', places[0]);
  await byKeys('Upper right', places[1]);
  const onPage = async ([x, y]: readonly [number, number]) => {
    const box = (await image.boundingBox())!;
    return { x: box.x + (x / 750) * box.width, y: box.y + (y / 510) * box.height };
  };
  await ring('Lower right').scrollIntoViewIfNeeded();
  const from = (await ring('Lower right').boundingBox())!;
  const to = await onPage(places[2]);
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 5 });
  await page.mouse.up();
  await ring('Lower left').focus();
  const tap = await onPage(places[3]);
  // A little aside, so that the ring that stands near does not take the tap.
  await page.mouse.click(tap.x + 60, tap.y - 60);
  await byKeys('Lower left', places[3]);
  await byKeys('Lower right', places[2]);
  await page.getByRole('button', { name: 'Read between these corners' }).click();
  await expect(page.getByTestId('sure')).toHaveText('Sure of every square.');
  expect(await savedAs(page, request, id)).toBe(0);
});

test('a file that is no chart is named for what it is', async ({ page, request }) => {
  const id = await shelved(request, 'Named');
  await page.goto(`/canvas/${id}/chart/read`);
  for (const [name, type, start, words] of [
    ['chart.bmp', 'image/bmp', 'BM6\0', 'This is a BMP picture; open it in any picture program'],
    [
      'photo.heic',
      'image/heic',
      '\0\0\0\x18ftypheic',
      'This is a HEIC photo; have it saved or sent as JPEG.',
    ],
    ['chart.csv', 'text/csv', '%PDF-1.7\n\0\0', 'This is a PDF; save its page with the chart as a picture.'],
    ['chart.png', 'image/png', 'nonsense', 'This file is no picture that we know.'],
  ] as const) {
    await choose(page, name, type, Buffer.from(start.padEnd(64, '\0'), 'latin1'));
    await expect(page.getByText(words)).toBeVisible();
  }
});

test('a reading says how sure it is, and shows what it is least sure of', async ({ page, request }) => {
  const id = await shelved(request, 'Unsure');
  await page.goto(`/canvas/${id}/chart/read`);
  // Cells of 3 pixels, heavily compressed: colours run into each other.
  const buffer = await picture({ pitch: 6.4, marginPx: 12, noise: 14 }).jpeg({ quality: 30 }).toBuffer();
  await choose(page, 'poor.jpg', 'image/jpeg', buffer);
  await expect(page.getByTestId('sure')).toContainText(/^Sure of [\d,]+ of 1,200 squares\.$/, {
    timeout: 30_000,
  });
  const least = page.getByRole('region', { name: 'Least sure' }).getByRole('listitem');
  await expect(least.first()).toContainText(/Column \d+, row \d+/);
  await expect(least).toHaveCount(12);
});
