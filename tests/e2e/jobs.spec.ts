import { randomUUID } from 'node:crypto';
import { packed } from '../packed';
import { DEMO, expect, test } from './bench';

test('a long job tells how far it is, is ended, and others are answered meanwhile', async ({ request }) => {
  const job = randomUUID();
  const at = `/api/jobs/${job}`;
  expect((await request.get(at)).status()).toBe(404);
  const printing = request.get(`/api/canvases/${DEMO.glasshouse}/chart.pdf?cellMm=3&job=${job}`);
  await expect
    .poll(async () => (await (await request.get(at)).json()).done ?? 0, { timeout: 30_000 })
    .toBeGreaterThan(1);
  const { done, of } = await (await request.get(at)).json();
  expect(of).toBeGreaterThan(done);
  expect((await request.get('/api/tips')).status()).toBe(200);
  expect((await request.delete(at)).status()).toBe(204);
  const ended = await printing;
  expect(ended.status()).toBe(409);
  expect((await ended.json()).detail).toBe('This was cancelled. Nothing was changed.');
  expect((await request.get(at)).status()).toBe(404);
  // The thread that was ended is replaced.
  expect((await request.get(`/api/canvases/${DEMO.kingfisher}/picture.png`)).status()).toBe(200);
});

test('printing a large chart shows its pages beside the button, and can be cancelled', async ({ page }) => {
  await page.goto(`/canvas/${DEMO.glasshouse}/chart/read`);
  await page.getByRole('button', { name: 'Chart to print (PDF)' }).click();
  await expect(page.getByText(/Pages drawn: \d+ of 136/)).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText(/Pages drawn/)).toBeHidden();
  await expect(page.getByRole('button', { name: 'Chart to print (PDF)' })).toBeEnabled();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('archives and spreadsheets made to overwhelm are refused, and Oculent goes on', async ({ request }) => {
  const send = async (files: Record<string, Uint8Array>, url: string, type: string) => {
    const answer = await request.post(url, {
      data: Buffer.from(packed(files)),
      headers: { 'content-type': type },
    });
    return { status: answer.status(), detail: (await answer.json()).detail as string };
  };
  const flood = new Uint8Array(155_000_000).fill(0x0a);
  const descriptor = Buffer.from(JSON.stringify({ oculent: { archive: 1 }, resources: [] }));
  const bomb = { 'datapackage.json': descriptor, 'mark.csv': flood, 'canvas.csv': flood };
  expect(await send(bomb, '/api/archives', 'application/zip')).toMatchObject({
    status: 422,
    detail: expect.stringContaining('more than 300 MB'),
  });
  const deep = Buffer.from(`id,edits\r\nx,"${'['.repeat(200_000)}"\r\n`);
  const nested = { 'datapackage.json': descriptor, 'chart_edit.csv': deep };
  expect((await send(nested, '/api/archives', 'application/zip')).status).toBe(422);
  const xlsx = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
  const sheet = { 'xl/worksheets/sheet1.xml': new Uint8Array(200_000_000) };
  expect((await send(sheet, '/api/sheet-readings', xlsx)).detail).toContain('far more than');
  const json = `${'['.repeat(100_000)}${']'.repeat(100_000)}`;
  const marks = await request.post(`/api/canvases/${DEMO.kingfisher}/marks`, {
    data: json,
    headers: { 'content-type': 'application/json' },
  });
  expect(marks.status()).toBe(400);
  expect((await request.get('/api/tips')).status()).toBe(200);
});
