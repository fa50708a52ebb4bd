import sharp from 'sharp';
import { expect, shelve, test } from './bench';

const SQUARE = { shape: 'square', finish: 'plain' };

test('what lacks is covered from the stash, asked for, and cleared by the bag that comes', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Lacking');
  for (const [line, drills] of [
    [1, 150],
    [2, 200],
    [3, 200],
  ]) {
    await request.post(`/api/canvases/${id}/bags`, {
      data: { id: crypto.randomUUID(), line, drills, how: 'counted' },
    });
  }
  await page.goto('/stash');
  await page.getByLabel('Colour code').fill('412');
  await page.getByLabel('Drills left over').fill('0');
  await page.getByRole('button', { name: 'Add to the stash' }).click();
  await expect(page.getByText('There must be at least one drill.')).toBeVisible();
  await page.getByLabel('Drills left over').fill('25');
  await page.getByRole('button', { name: 'Add to the stash' }).click();
  await expect(page.getByRole('row', { name: /^412.*\b25\b/ })).toBeVisible();
  await request.post('/api/stash', {
    data: { id: crypto.randomUUID(), code: '77', hex: '#4b7d40', drills: 300, ...SQUARE },
  });

  await page.goto(`/canvas/${id}/checkin/request`);
  const moss = page.getByRole('article', { name: '412' });
  // 150 of 190 are here, and some of what comes will be bad: 53 more make running out unlikely.
  await expect(moss).toContainText('53 more to be safe');
  await expect(moss).toContainText('the same code and finish');
  await expect(moss).toContainText('It would show most in section 1');
  await moss.getByRole('button', { name: 'Take 25' }).click();
  await expect(moss).toContainText('27 more to be safe');
  await expect(moss).toContainText('150 from the seller of 190');
  await moss.getByRole('button', { name: 'asked' }).click();
  await expect(moss.getByRole('button', { name: 'asked' })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByLabel('Letter to the seller')).toHaveValue(
    /- 412 \(key 1\): 150 received of 190 needed, please send at least 53/,
  );

  await request.post(`/api/canvases/${id}/bags`, { data: { id: crypto.randomUUID(), line: 1 } });
  await page.reload();
  await expect(moss.getByRole('button', { name: 'arrived' })).toHaveAttribute('aria-pressed', 'true');
  await expect(moss).toContainText('all here');
  // The third colour has one of two bags, but its drills are here, so nothing is claimed.
  await expect(page.getByText('Nothing is missing')).toBeVisible();
  const pdf = await request.get(`/api/canvases/${id}/request.pdf`);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
});

test('the cloth is inspected, measured and photographed', async ({ page, request }) => {
  const id = await shelve(request, 'Inspected');
  await page.goto(`/canvas/${id}/checkin/inspection`);
  await page.getByLabel('What is it').selectOption('The size is wrong');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText('Give the measured width in centimetres.')).toBeVisible();
  await page.getByLabel('Width, cm').fill('5.2');
  await page.getByLabel('Height, cm').fill('4');
  const photo = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#5b7a55' } })
    .jpeg()
    .toBuffer();
  await page
    .getByLabel('Photo', { exact: true })
    .setInputFiles({ name: 'cloth.jpg', mimeType: 'image/jpeg', buffer: photo });
  await page.getByRole('button', { name: 'Write it down' }).click();
  const entry = page.getByRole('article', { name: 'The size is wrong' });
  await expect(entry).toContainText(
    '24 × 16 squares should measure 6 × 4 cm; its width is 0.8 cm too small.',
  );
  await expect
    .poll(() => entry.getByRole('img').evaluate((image: HTMLImageElement) => image.naturalWidth))
    .toBe(60);
  await page.getByLabel('What is it').selectOption('Air channels under the adhesive');
  await expect(page.getByText('Blades are sharp')).toBeVisible();
  await entry.getByRole('button', { name: /^Delete/ }).click();
  await expect(page.getByText('Nothing is written down yet.')).toBeVisible();
});

test('a packing list goes by code, with the sizes in stock', async ({ page, request }) => {
  const id = await shelve(request, 'Packed');
  await page.goto(`/canvas/${id}/checkin/packing`);
  // 98: 96 + 10 % = 106; 412: 190 + 10 % = 209; 1204: 90 + 10 % = 99.
  await expect(page.getByText('4 bags')).toBeVisible();
  await expect(page.getByRole('row').nth(1)).toContainText('98');
  await expect(page.getByRole('row', { name: /412.*190.*209.*2 × 200/ })).toBeVisible();
  await page.getByLabel('the fewest bags').check();
  await expect(page.getByRole('row', { name: /412.*190.*209.*1 × 1,000/ })).toBeVisible();
  await page.getByLabel('Sizes in stock, in drills').fill('0');
  await expect(page.getByRole('alert')).toContainText('A bag holds a whole number of drills');
  const csv = await (await request.get(`/api/canvases/${id}/packing.csv?sizes=200`)).text();
  expect(csv.split('\r\n').slice(0, 2)).toEqual([
    'Colour code,Finish,Drills needed,With spare,Bags of 200,Packed',
    '98,metallic,96,106,1,200',
  ]);
});

test('a sheet goes out as a spreadsheet file and comes in again', async ({ page, request }) => {
  const id = await shelve(request, 'Spreadsheet');
  const file = await (await request.get(`/api/canvases/${id}/checkin.xlsx`)).body();
  await page.goto(`/canvas/${id}/checkin/sheet`);
  await page.getByRole('button', { name: 'Read a file' }).click();
  await page
    .getByLabel('Choose a file')
    .setInputFiles({ name: 'kit.xlsx', mimeType: 'application/octet-stream', buffer: file });
  await expect(page.getByText('376 drills needed, 4 bags')).toBeVisible();
  const before = await (await request.get(`/api/canvases/${id}/sheet`)).json();
  await page.getByRole('button', { name: 'Save this colour list' }).click();
  await page.waitForURL(/checkin$/);
  expect(await (await request.get(`/api/canvases/${id}/sheet`)).json()).toEqual(before);
  await page.goto(`/canvas/${id}/checkin/sheet`);
  await page.getByRole('button', { name: 'Read a file' }).click();
  await page
    .getByLabel('Choose a file')
    .setInputFiles({ name: 'kit.xlsx', mimeType: 'application/octet-stream', buffer: Buffer.from('no') });
  await expect(page.getByRole('alert')).toContainText('not a spreadsheet');
});
