import { randomUUID } from 'node:crypto';
import type { APIRequestContext, Page } from '@playwright/test';
import type { PlacementsView } from '../../src/server/placing/contract';
import { chartPng, cloth, DEMO, expect, pointOf, shelve, test } from './bench';

/** The canvas of the tests: 24 × 16 squares in stripes, 376 drills. */
const WHOLE = { x: 0, y: 0, width: 24, height: 16 };

const planOf = async (request: APIRequestContext, id: string, query: string): Promise<PlacementsView> => {
  const response = await request.get(`/api/canvases/${id}/placements?${query}`);
  expect(response.status()).toBe(200);
  return response.json();
};
/** Cuts the canvas of the tests into six. */
const cut = (request: APIRequestContext, id: string) =>
  request.put(`/api/canvases/${id}/sections`, { data: { id: randomUUID(), columns: 8, rows: 8 } });
const shownPlacements = async (page: Page) =>
  Number((await page.getByTestId('plan').locator('.big-number').textContent())!.replaceAll(',', ''));

test('a section is followed by keyboard from the first placement to the last, laid, and undone', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Bar by bar');
  await cut(request, id);
  const plan = await planOf(request, id, 'section=2');
  await page.goto(`/canvas/${id}/placing?section=2`);
  await expect.poll(() => shownPlacements(page)).toBe(plan.count);
  const step = page.getByTestId('step');
  const seen: string[] = [];
  await cloth(page).focus();
  for (const { x, y, orientation, length } of plan.placements) {
    const where =
      length === 1
        ? `Row ${y + 1}, column ${x + 1}:`
        : orientation === 'h'
          ? `Row ${y + 1}, columns ${x + 1} to ${x + length}:`
          : `Column ${x + 1}, rows ${y + 1} to ${y + length}:`;
    await expect(step).toContainText(where);
    seen.push(where);
    await page.keyboard.press('Space');
  }
  expect(new Set(seen).size).toBe(plan.count);
  await expect(step.getByRole('button', { name: 'Next' })).toBeDisabled();
  await page.keyboard.press('Backspace');
  await expect(step).toContainText(seen.at(-2)!);
  // Lay them all: what is laid is planned no more.
  for (let left = plan.count; left > 0; left--) {
    await expect.poll(() => shownPlacements(page)).toBe(left);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByTestId('plan')).toContainText('Everything in this section is laid.');
  await expect(page.getByText('All saved')).toBeVisible();
  expect(await planOf(request, id, 'section=2')).toMatchObject({ count: 0, placementsOneByOne: 0 });
  expect((await planOf(request, id, 'section=1')).count).toBeGreaterThan(0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(() => shownPlacements(page)).toBe(1);
});

test('a key that is held down and a double click lay one placement each', async ({ page, request }) => {
  const id = await shelve(request, 'One at a time');
  const { count } = await planOf(request, id, 'section=1');
  await page.goto(`/canvas/${id}/placing?section=1`);
  await expect.poll(() => shownPlacements(page)).toBe(count);
  await cloth(page).focus();
  await page.keyboard.down('Enter');
  for (let i = 0; i < 5; i++) await page.keyboard.down('Enter');
  await page.keyboard.up('Enter');
  await expect.poll(() => shownPlacements(page)).toBe(count - 1);
  await page.getByRole('button', { name: 'Lay it' }).dblclick();
  await expect.poll(() => shownPlacements(page)).toBe(count - 2);
  await page.waitForTimeout(300);
  expect(await shownPlacements(page)).toBe(count - 2);
});

/** All of the canvas as one section. */
const oneSection = (request: APIRequestContext, id: string) =>
  request.put(`/api/canvases/${id}/sections`, { data: { id: randomUUID(), columns: 24, rows: 16 } });

test('a mark in the middle of a bar changes its region alone, and a touched square brings its bar', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'In the middle');
  await oneSection(request, id);
  const before = await planOf(request, id, 'scope=canvas&borders=none');
  const bar = before.placements.find(({ length, orientation }) => length > 4 && orientation === 'h')!;
  const cell = bar.y * 24 + bar.x + 2;
  await request.post(`/api/canvases/${id}/marks`, {
    data: { id: randomUUID(), kind: 'lay', runs: [cell, 1] },
  });
  const after = await planOf(request, id, 'scope=canvas&borders=none');
  const others = ({ placements }: PlacementsView) =>
    placements.filter(({ line }) => line !== bar.line).map(({ order: _, ...each }) => each);
  expect(others(after)).toEqual(others(before));
  expect(after.placementsOneByOne).toBe(before.placementsOneByOne - 1);
  await page.setViewportSize({ width: 820, height: 1180 });
  await page.goto(`/canvas/${id}/placing?section=1`, { waitUntil: 'commit' });
  const step = page.getByTestId('step');
  // Once it is there to be seen it stays, while the bars are planned and when they are: a finger is on its way.
  const first = await step.evaluate((slip) => slip.getBoundingClientRect().toJSON());
  await expect(step).toContainText('placement 1 of');
  await page.waitForLoadState('networkidle');
  expect(await step.evaluate((slip) => slip.getBoundingClientRect().toJSON())).toEqual(first);
  const last = after.placements.at(-1)!;
  const point = await pointOf(page, WHOLE, last.x, last.y);
  await page.mouse.click(point.x, point.y);
  await expect(step).toContainText(last.orientation === 'h' ? `Row ${last.y + 1}` : `Column ${last.x + 1}`);
});

test('wishes are switched on one by one, each with its price, kept over night and followed by other programs', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'As wished');
  const other = await shelve(request, 'Without wishes');
  // The times come late: prices wait for them, so that none is shown that is another one a moment later.
  let come = () => {};
  const held = new Promise<void>((resolve) => {
    come = resolve;
  });
  await page.route('**/time-model*', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(`/canvas/${id}/placing?section=1`);
  await page.getByRole('button', { name: 'Wishes' }).click();
  const wishes = page.getByTestId('wishes');
  const item = (name: string) => wishes.getByRole('listitem').filter({ hasText: name });
  await expect.poll(() => shownPlacements(page)).toBeGreaterThan(0);
  await page.waitForTimeout(1000);
  await expect(item('Short bars')).toContainText('…');
  come();
  for (const name of [
    'Least minutes',
    'Turn only where it pays',
    'One direction a colour',
    'One tip after the other',
    'Staggered ends',
    'Every second row first',
    'Light colours one by one',
    'Short bars',
    'Single drills at the borders',
  ]) {
    await expect(item(name)).toContainText(/placements? (more|fewer)|As many placements/);
  }
  const price = /^(\d+) placements? more/.exec(
    (await item('Short bars').locator('span span').nth(1).textContent())!,
  );
  const free = await shownPlacements(page);
  await item('Short bars').getByRole('checkbox').check();
  await expect.poll(() => shownPlacements(page)).toBe(free + Number(price![1]));
  await item('Short bars')
    .getByLabel(/longest bar/)
    .fill('2');
  await expect.poll(() => shownPlacements(page)).toBeGreaterThan(free + Number(price![1]));
  const short = await shownPlacements(page);
  await expect(page.getByText('All saved')).toBeVisible();
  await page.reload();
  await expect.poll(() => shownPlacements(page)).toBe(short);
  expect(await planOf(request, id, 'section=1&wishes=own')).toMatchObject({ K: 2, count: short });
  expect((await planOf(request, id, 'section=1')).count).toBe(free);
  expect((await planOf(request, other, 'section=1&wishes=own')).count).toBe(free);
  await page.getByRole('button', { name: 'Wishes' }).click();
  await page.getByRole('button', { name: 'Without borders' }).click();
  await expect(page.getByTestId('whole')).toContainText(
    /placements; no plan has fewer than .* The best after/,
  );
});

test('the order of the colours goes by the school, at the bench too', async ({ page, request }) => {
  const id = await shelve(request, 'By school');
  await page.goto(`/canvas/${id}/placing?section=1`);
  const list = page.getByRole('list', { name: /in the order in which they are laid/ });
  const first = () => list.getByRole('button').first().textContent();
  await expect(list.getByRole('button').first()).toBeVisible();
  const most = await first();
  await page.getByLabel('Order of the colours').selectOption({ label: 'Your own order' });
  await expect(page.getByText('The colours that you put in front come first.')).toBeVisible();
  await list.getByRole('button').nth(1).click();
  const second = await list.getByRole('button').nth(1).textContent();
  await page.getByRole('button', { name: 'Lay this colour earlier' }).click();
  await expect.poll(first).toBe(second);
  expect(await first()).not.toBe(most);
  await expect(page.getByText('All saved')).toBeVisible();
  const code = /\d{2,4}/.exec(second!)![0];
  await page.goto(`/canvas/${id}/bench?section=1`);
  await expect(list.getByRole('button').first()).toContainText(code);
});

test('tips: what earns its place, what is owned, and what is worn', async ({ page, request }) => {
  const id = await shelve(request, 'Tips');
  await page.goto(`/canvas/${id}/placing?section=1`);
  await page.getByRole('button', { name: 'Tips', exact: true }).click();
  const tips = page.getByTestId('tips');
  await expect(tips).toContainText(/A wider tip than your 9-tip saves|-tip saves \d+ placement/);
  const each = tips.getByRole('table', { name: 'Placements with each tip' });
  // The comparison may still be coming in, tip after tip.
  await expect(async () => {
    if (!(await each.isVisible())) await tips.getByText('Tip by tip').click();
    await expect(each.getByRole('row')).toHaveCount(13, { timeout: 3000 });
  }).toPass({ timeout: 30_000 });
  await page.goto('/tips');
  await page.getByRole('button', { name: 'Tip for 4 drills' }).click();
  await page.getByLabel('On which pen').fill('the blue one');
  await page.getByLabel('On which pen').press('Enter');
  // It shows what was saved, so it changes only with the answer.
  await page.getByLabel('Worn or loose').click();
  await expect(page.getByLabel('Worn or loose')).toBeChecked();
  const kept = async () => (await (await request.get('/api/tips')).json()).tips;
  await expect.poll(kept).toContainEqual({ size: 4, shape: 'both', pen: 'the blue one', worn: true });
  await page.goto(`/canvas/${id}/placing?section=1`);
  await page.getByRole('button', { name: 'Hints' }).click();
  await page.getByRole('button', { name: /^Hide the hint: Loading a bar/ }).click();
  await expect(page.getByRole('heading', { name: 'Loading a bar' })).toBeHidden();
  await page.reload();
  await page.getByRole('button', { name: 'Hints' }).click();
  await expect(page.getByRole('heading', { name: 'Square drills' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Loading a bar' })).toBeHidden();
  await page.getByRole('button', { name: 'Show all hints again' }).click();
  await expect(page.getByRole('heading', { name: 'Loading a bar' })).toBeVisible();
  await page.goto('/tips');
  const tip = (size: number) => page.getByRole('button', { name: `Tip for ${size} drills` });
  await expect(tip(4)).toHaveAttribute('aria-pressed', 'true');
  // Another screen adds one: a page that did not know of it would take it out again.
  const more = { size: 7, shape: 'both', pen: '', worn: false };
  await request.put('/api/tips', { data: { tips: [...(await kept()), more] } });
  await expect(tip(7)).toHaveAttribute('aria-pressed', 'true');
  await tip(4).click();
  await expect.poll(kept).not.toContainEqual(expect.objectContaining({ size: 4 }));
  expect(await kept()).toContainEqual(more);
  await tip(7).click();
  await expect.poll(kept).not.toContainEqual(more);
});

test('mostly confetti: the station says so and offers a checkerboard', async ({ page, request }) => {
  // No two neighbours are alike.
  const id = await shelve(request, 'Confetti', false);
  const put = await request.put(`/api/canvases/${id}/chart`, {
    data: chartPng((x, y) => ['#4a7c3f', '#34406e', '#e0c060'][(x + y) % 3]!),
    headers: { 'content-type': 'image/png' },
  });
  expect(put.ok()).toBe(true);
  await request.put(`/api/canvases/${id}/sections`, { data: { id: randomUUID(), columns: 10, rows: 10 } });
  await page.goto(`/canvas/${id}/placing?section=1`);
  await expect(page.getByText(/Mostly single drills here: 100 of 100/)).toBeVisible();
  await page.getByRole('button', { name: 'Lay it as a checkerboard' }).click();
  await expect(page.getByText(/every second square first/)).toBeVisible();
  // There are as many of them without the wish, which is written meanwhile.
  await expect
    .poll(async () => {
      const { count, placements } = await planOf(request, id, 'section=1&wishes=own');
      return [count, placements.slice(0, 50).every(({ x, y }) => (x + y) % 2 === 0)];
    })
    .toEqual([100, true]);
});

test('placements for other programs: exact, within borders, with an honest bound, and refused in words', async ({
  request,
}) => {
  const id = DEMO.kingfisher;
  const sections = (await (await request.get(`/api/canvases/${id}/sections`)).json()).sections as {
    rects: { x: number; y: number; width: number; height: number }[];
  }[];
  const { width, height } = (await (await request.get(`/api/canvases/${id}`)).json()).canvas;
  const ownerOf = (x: number, y: number) =>
    sections.findIndex(({ rects }) =>
      rects.some((r) => x >= r.x && y >= r.y && x < r.x + r.width && y < r.y + r.height),
    );
  const laid = new Uint8Array(await (await request.get(`/api/canvases/${id}/bitmap`)).body());
  const isLaid = (cell: number) => (laid[cell >> 3]! & (1 << (cell & 7))) !== 0;
  for (const borders of ['none', 'sections']) {
    const plan = await planOf(request, id, `scope=canvas&borders=${borders}&seconds=2`);
    const times = new Uint8Array(width * height);
    const wrong: string[] = [];
    for (const { x, y, length, orientation, tip } of plan.placements) {
      if (length > Math.min(tip, plan.K)) wrong.push(`${length} with a ${tip}-tip at ${x}, ${y}`);
      for (let i = 0; i < length; i++) {
        const [cx, cy] = orientation === 'h' ? [x + i, y] : [x, y + i];
        times[cy * width + cx]!++;
        if (isLaid(cy * width + cx)) wrong.push(`laid at ${cx}, ${cy}`);
        if (borders === 'sections' && ownerOf(cx, cy) !== ownerOf(x, y)) {
          wrong.push(`over a border at ${cx}, ${cy}`);
        }
      }
    }
    expect(wrong).toEqual([]);
    expect(times.every((count) => count <= 1)).toBe(true);
    expect(times.reduce((sum, count) => sum + count, 0)).toBe(plan.placementsOneByOne);
    expect(plan.lowerBound).toBeLessThanOrEqual(plan.count);
    expect(plan.count).toBeLessThan(plan.lowerBound * 1.02);
  }
  const refused = async (query: string) => {
    const response = await request.get(`/api/canvases/${id}/placements?${query}`);
    return `${response.status()} ${(await response.json()).detail}`;
  };
  expect(await refused('')).toBe('422 Give either a section or scope=canvas.');
  expect(await refused('section=999')).toMatch(/^404 .*section 999/);
  expect(await refused('section=a')).toBe('422 Give the number of a section.');
  expect(await refused('scope=canvas&seconds=0')).toMatch(/^422 The search takes at least/);
});
