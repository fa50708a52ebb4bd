import { cloth, DEMO, expect, test } from './bench';

const GLASSHOUSE = `/canvas/${DEMO.glasshouse}/chart`;

test('a popped drill is looked up in eight keys', async ({ page }) => {
  await page.goto(GLASSHOUSE);
  await expect(page.getByLabel(/^Find:/)).toBeFocused();
  for (const key of ['1', '2', '3', ' ', '4', '5', '6', 'Enter']) await page.keyboard.press(key);
  await expect(page.getByTestId('readout')).toContainText('Column 123, row 456');
  await expect(page.getByTestId('readout')).toContainText(/\d{3,4} .+, pot \d+/);
  // The same cell by its distance from the edges: 123 ÷ 4 = 30.75 cm, 456 ÷ 4 = 114 cm at 2.5 mm.
  await page.getByLabel(/^Find:/).fill('30.75 cm 114 cm');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('readout')).toContainText('Column 123, row 456');
  await page.getByLabel(/^Find:/).fill('1 in r 1 in b');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('readout')).toContainText('Column 830, row 490');
});

test('colours and sections are found, and what is nowhere is told', async ({ page }) => {
  await page.goto(GLASSHOUSE);
  const field = page.getByLabel(/^Find:/);
  await page.getByRole('button', { name: 'Rarest first' }).click();
  const rare = page.getByRole('list', { name: 'Colours, the rarest first' }).getByRole('button').first();
  const { lines } = (await (await page.request.get(`/api/canvases/${DEMO.glasshouse}/sheet`)).json()) as {
    lines: { code: string; neededDrills: number }[];
  };
  // The demo sheet counts what is on the chart.
  const { code } = lines.reduce((least, line) => (line.neededDrills < least.neededDrills ? line : least));
  await expect(rare).toContainText(code);
  await field.fill(code);
  await page.keyboard.press('Enter');
  const first = await page.getByTestId('readout').textContent();
  expect(first).toContain(code);
  await page.getByRole('button', { name: 'Next place' }).click();
  await expect(page.getByTestId('readout')).not.toHaveText(first!);
  await expect(page.getByTestId('readout')).toContainText(code);
  await field.fill('s9999');
  await page.keyboard.press('Enter');
  await expect(page.getByText('There is no section 9999')).toBeVisible();
  await field.fill('900 1');
  await page.keyboard.press('Enter');
  await expect(page.getByText('840 columns and 500 rows')).toBeVisible();
  await page.getByLabel('The ruler counts').selectOption('in');
  const stickers = await page.request.get(`/api/canvases/${DEMO.glasshouse}/edge-marks.pdf?every=40`);
  expect((await stickers.body()).subarray(0, 5).toString()).toBe('%PDF-');
  expect((await page.request.get(`/api/canvases/${DEMO.glasshouse}/edge-marks.pdf?every=2`)).status()).toBe(
    422,
  );
});

test('The Glasshouse pans and zooms from whole to five cells; frame times are printed', async ({ page }) => {
  await page.goto(GLASSHOUSE);
  await cloth(page).waitFor();
  await page.waitForTimeout(500);
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(window, { frameTimes: times });
    let last = performance.now();
    const frame = (now: number) => {
      times.push(now - last);
      last = now;
      requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });
  const box = (await cloth(page).boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  for (let i = 0; i < 40; i++) await page.mouse.wheel(0, -90);
  await page.mouse.down();
  for (let i = 0; i < 40; i++) await page.mouse.move(x - i * 9, y - i * 4);
  await page.mouse.up();
  for (let i = 0; i < 40; i++) await page.mouse.wheel(0, 90);
  const times = (await page.evaluate(() => (window as unknown as { frameTimes: number[] }).frameTimes)).sort(
    (a, b) => a - b,
  );
  const at = (share: number) => times[Math.floor((times.length - 1) * share)]!.toFixed(1);
  console.log(`frames ${times.length}, median ${at(0.5)} ms, 95th percentile ${at(0.95)} ms`);
  // Every gesture arrived: the cloth is whole again, and knows where the pointer is.
  expect(times.length).toBeGreaterThan(20);
  await expect(page.getByTestId('readout')).toContainText('Column');
});
