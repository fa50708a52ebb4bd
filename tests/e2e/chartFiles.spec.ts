import { crc32, deflateSync } from 'node:zlib';
import type { APIRequestContext, Page } from '@playwright/test';
import { chartPng, DEMO, expect, lineAt, pointOf, shelve, test } from './bench';

/** Lines of the chart of a canvas, as the server keeps it. */
async function cellsOf(request: APIRequestContext, id: string): Promise<number[]> {
  const bytes = await (await request.get(`/api/canvases/${id}/chart`)).body();
  return Array.from({ length: bytes.length / 2 }, (_, i) => bytes.readUInt16LE(i * 2));
}
const EXPECTED = Array.from({ length: 24 * 16 }, (_, i) => lineAt(i % 24, Math.floor(i / 24)));

/** The test chart with larger cells, grid lines and a margin, drawn and compressed by the browser. */
async function drawnByBrowser(page: Page, type: string, cell: number, margin: number): Promise<Buffer> {
  const dataUrl = await page.evaluate(
    async ({ png, type, cell, margin }) => {
      const picture = new Image();
      picture.src = `data:image/png;base64,${png}`;
      await picture.decode();
      const canvas = document.createElement('canvas');
      canvas.width = picture.width * cell + 2 * margin;
      canvas.height = picture.height * cell + 2 * margin;
      const context = canvas.getContext('2d')!;
      context.imageSmoothingEnabled = false;
      context.fillStyle = '#ffffff';
      context.fillRect(0, 0, canvas.width, canvas.height);
      context.drawImage(picture, margin, margin, picture.width * cell, picture.height * cell);
      context.fillStyle = '#555555';
      for (let x = 0; x <= picture.width; x++)
        context.fillRect(margin + x * cell, margin, 1, picture.height * cell);
      for (let y = 0; y <= picture.height; y++)
        context.fillRect(margin, margin + y * cell, picture.width * cell, 1);
      return canvas.toDataURL(type, 0.85);
    },
    { png: chartPng().toString('base64'), type, cell, margin },
  );
  return Buffer.from(dataUrl.split(',')[1]!, 'base64');
}

test('JPEG and WebP charts with larger cells, made by a browser, are read, shown and saved', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'From a JPEG', false);
  await page.goto(`/canvas/${id}/chart/read`);
  for (const [name, type, margin] of [
    ['chart.webp', 'image/webp', 0],
    ['chart.jpg', 'image/jpeg', 17],
  ] as const) {
    const buffer = await drawnByBrowser(page, type, 13, margin);
    await page.getByLabel('Choose a file').setInputFiles({ name, mimeType: type, buffer });
    await expect(page.getByText('A square is 13 × 13 pixels large')).toBeVisible();
    await expect(page.getByText('This file is compressed')).toBeVisible();
    // The bare corner was painted white, and white is on no line.
    await expect(page.getByText('Not in the colour list')).toBeVisible();
    await expect(page.getByText('8 squares without a drill')).toBeVisible();
    await expect(page.getByRole('table', { name: 'Taken as the same colour' })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Use the nearest colour of the list for each' }).click();
  await expect(page.getByText('384 drills')).toBeVisible();
  const jpeg = await drawnByBrowser(page, 'image/jpeg', 13, 17);
  await page
    .getByLabel('Choose a file')
    .setInputFiles({ name: 'c.jpg', mimeType: 'image/jpeg', buffer: jpeg });
  await page.getByRole('button', { name: 'Save, and leave those squares bare' }).click();
  await page.waitForURL(/checkin$/);
  expect(await cellsOf(request, id)).toEqual(EXPECTED);
});

test('what is taken out as PNG, CSV or JSON reads back the same', async ({ request }) => {
  const id = await shelve(request, 'Out and in');
  const other = await shelve(request, 'In again', false);
  for (const [file, type] of [
    ['chart.png', 'image/png'],
    ['chart.csv', 'text/csv'],
    ['chart.json', 'application/json'],
  ]) {
    const out = await request.get(`/api/canvases/${id}/${file}`);
    const put = await request.put(`/api/canvases/${other}/chart`, {
      data: await out.body(),
      headers: { 'content-type': type! },
    });
    expect(put.ok(), file).toBe(true);
    expect(await cellsOf(request, other), file).toEqual(EXPECTED);
  }
  const pdf = await request.get(`/api/canvases/${id}/chart.pdf?cellMm=5&paper=letter&ink=black`);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  expect((await request.get(`/api/canvases/${id}/chart.pdf?cellMm=99`)).status()).toBe(422);
  expect((await request.get(`/api/canvases/${id}/chart.pdf?panel=7`)).status()).toBe(404);
});

test('the SVG of a chart shows its colours in a browser', async ({ page, request }) => {
  const id = await shelve(request, 'As SVG');
  await page.goto('/new');
  const colours = await page.evaluate(async (url) => {
    const picture = new Image();
    picture.src = url;
    await picture.decode();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [240, 160];
    const context = canvas.getContext('2d')!;
    context.drawImage(picture, 0, 0, 240, 160);
    return [1, 9, 13].map((row) => [...context.getImageData(21, row * 10 + 1, 1, 1).data.subarray(0, 3)]);
  }, `/api/canvases/${id}/chart.svg`);
  expect(colours).toEqual([
    [0x4a, 0x7c, 0x3f],
    [0x34, 0x40, 0x6e],
    [0xe0, 0xc0, 0x60],
  ]);
});

test('a canvas goes out as a ZIP and comes back, as it was or as a copy', async ({ page, request }) => {
  const id = await shelve(request, 'There and back');
  const mark = { id: crypto.randomUUID(), kind: 'lay', runs: [0, 30] };
  expect((await request.post(`/api/canvases/${id}/marks`, { data: mark })).ok()).toBe(true);
  await page.goto(`/canvas/${id}/chart/read`);
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'The whole canvas (ZIP)' }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toBe('There and back.zip');
  const path = await download.path();
  const taken = async () => {
    await page.goto('/');
    await page.getByLabel('Bring in a ZIP').setInputFiles(path);
  };
  await taken();
  await expect(page.getByRole('alert')).toContainText('There and back is on the shelf already.');
  await page.getByRole('button', { name: 'Bring it in as a copy' }).click();
  await page.waitForURL((url) => url.pathname.startsWith('/canvas/') && !url.pathname.includes(id));
  const copy = /canvas\/([^/]+)/.exec(page.url())![1]!;
  const facts = async (canvas: string) => {
    const { laid, drills, colours } = await (await request.get(`/api/canvases/${canvas}`)).json();
    return { laid, drills, colours };
  };
  expect(await facts(copy)).toEqual({ laid: 30, drills: 376, colours: 3 });
  expect((await request.delete(`/api/canvases/${id}`)).status()).toBe(204);
  await taken();
  await expect(page.getByRole('alert')).toContainText('There and back is among the deleted canvases.');
  expect((await request.delete(`/api/deleted/${id}`)).status()).toBe(204);
  await taken();
  await page.waitForURL(new RegExp(`/canvas/${id}`));
  expect(await facts(id)).toEqual(await facts(copy));
  expect(await cellsOf(request, id)).toEqual(EXPECTED);
});

test('a stitch chart becomes a canvas of drills, with merges shown and overruled', async ({
  page,
  request,
}) => {
  await page.goto('/stitches');
  const offer = (label: RegExp, name: string, text: string) =>
    page.getByLabel(label).setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  const row = [...'xxxxooooo++.'].join(',');
  await offer(/^Grid/, 'grid.csv', `${new Array(10).fill(row).join('\n')}\n`);
  await offer(/^Thread list/, 'bad.csv', 'symbol,code,stitch\nx,T1,full\n,T1,back stitch\n');
  await expect(page.getByRole('alert')).toContainText('Line 3 of the thread list, T1, is “back stitch”.');
  await offer(
    /^Thread list/,
    'threads.csv',
    'symbol,code,name,hex\nx,T1,Peat,#101010\no,T2,Bark,#1d150e\n+,T3,Rowan,#c8402e\n',
  );
  await expect(page.getByText('110 drills')).toBeVisible();
  // 12 ÷ 4 = 3 cm, 10 ÷ 4 = 2.5 cm at 2.5 mm.
  await expect(page.getByText('12 × 10 stitches: 3 × 2.5 cm')).toBeVisible();
  await offer(/^Drills you can get/, 'range.csv', 'code,name,hex\nT1,Peat,#101010\nR9,Berry,#c63f30\n');
  await expect(page.getByText(/^T1 and T2 \(.+\) become T1: 90 drills together$/)).toBeVisible();
  await page.getByLabel('Drill for thread T2').selectOption('T2');
  await expect(page.getByText('become T1')).toBeHidden();
  await page.getByLabel('Title').fill('From stitches');
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await page.waitForURL(/canvas\/.+\/chart$/);
  const id = /canvas\/([^/]+)/.exec(page.url())![1]!;
  const { lines } = (await (await request.get(`/api/canvases/${id}/sheet`)).json()) as {
    lines: { code: string; neededDrills: number }[];
  };
  expect(lines.map(({ code, neededDrills }) => [code, neededDrills])).toEqual([
    ['R9', 20],
    ['T1', 40],
    ['T2', 50],
  ]);
});

test('a large chart is cut into panels that say when they are too large', async ({ page, request }) => {
  await page.goto(`/canvas/${DEMO.glasshouse}/chart/panels`);
  // A slip is no overlap of nothing, and no digit is picked out of one.
  const form = page.getByRole('form', { name: 'How it is cut' });
  const plan = async () => (await (await request.get(`/api/canvases/${DEMO.glasshouse}/panels`)).json()).plan;
  const before = await plan();
  await form.getByLabel('Overlap, squares').fill('2x');
  await form.getByLabel('Cut after columns').fill('60, 12o');
  await form.getByRole('button', { name: 'Cut it like this' }).click();
  await expect(form.getByRole('alert')).toHaveText([
    'Numbers of columns, like 60, 120',
    'A number of squares',
  ]);
  expect(await plan()).toEqual(before);
  await form.getByLabel('Overlap, squares').fill(String(before.overlap));
  await page.getByLabel('Panels across').fill('4');
  await page.getByLabel('You reach, cm').fill('55');
  await page.getByRole('button', { name: 'Cut it like this' }).click();
  // 840 ÷ 4 = 210 columns, 210 ÷ 4 = 52.5 cm, and 2.5 cm of cloth on each side.
  await expect(page.getByText('Panel 1 is 57.5 cm wide, and you reach 55 cm.')).toBeVisible();
  await expect(page.getByText('columns 211–420, rows 1–500')).toBeVisible();
  await page.getByLabel('Cut after columns').fill('210, 5');
  await page.getByRole('button', { name: 'Cut it like this' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'at least 10 squares' })).toBeVisible();
});

test('a part of the chart is copied and pasted, from a spreadsheet too', async ({ page, request }) => {
  const id = await shelve(request, 'Copy and paste');
  await page.goto(`/canvas/${id}/chart/repair`);
  const frame = { x: 0, y: 0, width: 24, height: 16 };
  await page.getByRole('button', { name: 'Copy' }).click();
  const [from, to, goal] = [
    await pointOf(page, frame, 0, 7),
    await pointOf(page, frame, 1, 8),
    await pointOf(page, frame, 5, 0),
  ];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
  const saved = () => page.waitForResponse((answer) => answer.url().endsWith('/chart-edits'));
  const first = saved();
  await page.mouse.click(goal.x, goal.y);
  await first;
  // Rows 8 and 9 are lines 1 and 2; put down at column 6 they change row 2 only.
  const cells = await cellsOf(request, id);
  expect([cells[5], cells[24 + 5], cells[24 + 6], cells[24 + 7]]).toEqual([1, 2, 2, 1]);
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', '0\t★\n');
    document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  });
  const second = saved();
  await page.mouse.click(goal.x, goal.y);
  await second;
  expect((await cellsOf(request, id)).slice(5, 7)).toEqual([3, 2]);
});

test('a picture that would fill the memory is refused by its header, and Oculent goes on', async ({
  request,
}) => {
  const id = await shelve(request, 'Bomb', false);
  const chunk = (type: string, data: Buffer) => {
    const out = Buffer.concat([Buffer.alloc(4), Buffer.from(type, 'latin1'), data, Buffer.alloc(4)]);
    out.writeUInt32BE(data.length, 0);
    out.writeUInt32BE(crc32(out.subarray(4, out.length - 4)), out.length - 4);
    return out;
  };
  // PNG specification, third edition, 11.2.1: width, height, depth 1, greyscale.
  const header = Buffer.alloc(13);
  header.writeUInt32BE(30_000, 0);
  header.writeUInt32BE(30_000, 4);
  header.set([1, 0, 0, 0, 0], 8);
  const bomb = Buffer.concat([
    Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(Buffer.alloc(30_000 * 3751), { level: 9 })),
    chunk('IEND', Buffer.alloc(0)),
  ]);
  expect(bomb.length).toBeLessThan(200_000);
  const answer = await request.put(`/api/canvases/${id}/chart`, {
    data: bomb,
    headers: { 'content-type': 'image/png' },
  });
  expect(answer.status()).toBe(422);
  expect((await answer.json()).detail).toContain('30,000 × 30,000 pixels');
  const many = Array.from({ length: 300 }, (_, i) => `${i + 1},${i + 1},5`).join('\n');
  const sheet = await request.post('/api/sheet-readings', {
    data: `key,code,drills\n${many}`,
    headers: { 'content-type': 'text/csv' },
  });
  expect(JSON.stringify(await sheet.json())).toContain('at most 250 colours');
  expect((await request.get(`/api/canvases/${id}`)).ok()).toBe(true);
});
