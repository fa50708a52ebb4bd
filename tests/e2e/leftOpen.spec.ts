import { randomUUID } from 'node:crypto';
import { WRITE_TIMEOUT_MS } from '../../src/islands/writing/api';
import { allSaved, cloth, DEMO, expect, left, openBench, shelve, test } from './bench';

test.describe('by a clock that is set', () => {
  test.use({ ownContext: true });
  test('a page that was left open notices what another page did, and a new day', async ({
    page,
    request,
  }) => {
    const [id, other] = [await shelve(request, 'Left open'), await shelve(request, 'Another')];
    await page.clock.install({ time: new Date('2026-05-01T20:00:00') });
    // Its squares do not show how many bags there are.
    await page.goto(`/canvas/${id}/chart`);
    const slip = page.getByRole('status').filter({ hasText: /^The bags were changed on another page/ });
    await page.clock.runFor(11_000);
    await expect(slip).toHaveCount(0);
    // A change of another canvas is none of this page.
    await request.post(`/api/canvases/${other}/bags`, { data: { id: randomUUID(), line: 1, drills: 200 } });
    await page.clock.runFor(11_000);
    await expect(slip).toHaveCount(0);
    await request.post(`/api/canvases/${id}/bags`, { data: { id: randomUUID(), line: 1, drills: 200 } });
    // The page may have been too busy to hear the first time that the clock struck.
    await expect(async () => {
      await page.clock.runFor(11_000);
      await expect(slip).toBeVisible({ timeout: 1500 });
    }).toPass();
    await slip.getByRole('button', { name: 'Show the newest' }).click();
    await page.waitForLoadState();
    await expect(slip).toHaveCount(0);

    // What is done here is no news, drills laid here neither.
    await page.goto(`/canvas/${id}/bench`);
    await page.getByRole('button', { name: /^All of it laid|^Lay all/ }).click();
    await page.clock.runFor(25_000);
    await expect(slip).toHaveCount(0);
    await page.clock.setFixedTime(new Date('2026-05-02T00:01:00'));
    await page.clock.runFor(11_000);
    await expect(page.getByText('A new day has begun since this page was opened.')).toBeVisible();
  });
});

test('a page that the browser had put away and shows again is read anew', async ({ page, request }) => {
  const id = await shelve(request, 'Put away');
  await page.goto(`/canvas/${id}/checkin`);
  const moss = page.locator('li:has(> button[title="Moss"])');
  await expect(moss).toContainText('0/1');
  await page.context().setOffline(true);
  await request.post(`/api/canvases/${id}/bags`, { data: { id: randomUUID(), line: 1 } });
  await page.context().setOffline(false);
  const loaded = page.waitForEvent('load');
  await page.evaluate(() => dispatchEvent(new PageTransitionEvent('pageshow', { persisted: true })));
  await loaded;
  await expect(moss).toContainText('1/1');
});

test('a duplicated tab is a screen of its own: it sees what the other one does, and undoes none of that', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Duplicated');
  await openBench(page, id);
  // As a browser duplicates a tab: it begins with what the other one keeps.
  const kept = await page.evaluate(() => ({ ...sessionStorage }));
  const copy = await page.context().newPage();
  await copy.addInitScript((entries) => {
    for (const [key, value] of Object.entries(entries)) sessionStorage.setItem(key, value);
  }, kept);
  await openBench(copy, id);
  await expect(copy.getByTestId('guide')).toContainText('Placement 1 of');
  await cloth(copy).focus();
  await copy.keyboard.press('Enter');
  await expect(left(copy)).not.toHaveText('160 left here of 160');
  await allSaved(copy);
  const withBar = Number.parseInt((await left(copy).textContent())!, 10);
  await expect(left(page)).toHaveText(`${withBar} left here of 160`);
  // In the midst of the canvas, where the bar was not.
  await cloth(page).focus();
  for (const key of ['ArrowUp', 'Space']) await page.keyboard.press(key);
  await expect(left(copy)).toHaveText(`${withBar - 1} left here of 160`);
  await allSaved(page);
  // It was laid later, but not here.
  await copy.keyboard.press('Control+z');
  await expect(left(copy)).toHaveText('159 left here of 160');
  await expect(left(page)).toHaveText('159 left here of 160');
});

test('a tab that the browser put to sleep holds up no other: marks are sent, and what others do is seen', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Asleep');
  await openBench(page, id);
  const awake = await page.context().newPage();
  // A clock of its own: that of Playwright waits for the pages of both.
  await awake.addInitScript(() => {
    const now = Date.now;
    Date.now = () => now() + Number(document.documentElement?.dataset.later ?? 0);
  });
  await openBench(awake, id);
  // It sleeps in the midst of sending, with the stream of both tabs and the turn to send.
  await page.route('**/marks', () => {});
  const sending = page.waitForRequest((request) => request.method() === 'POST');
  await cloth(page).focus();
  for (const key of ['ArrowUp', 'Space']) await page.keyboard.press(key);
  await sending;
  await expect(page.getByTestId('saved')).toContainText('Saving 1 change');
  const session = await page.context().newCDPSession(page);
  await session.send('Debugger.enable');
  await session.send('Debugger.pause');
  void page.evaluate(() => 0).catch(() => {});
  await cloth(awake).focus();
  for (const key of ['ArrowUp', 'ArrowUp', 'Space']) await awake.keyboard.press(key);
  await request.post(`/api/canvases/${id}/marks`, {
    data: { id: randomUUID(), kind: 'lay', runs: [0, 7], sittingId: null },
  });
  await expect(awake.getByTestId('saved')).toContainText('Saving 2 changes');
  // A minute later.
  await awake.evaluate(() => {
    document.documentElement.dataset.later = '60000';
    document.dispatchEvent(new Event('visibilitychange'));
  });
  await allSaved(awake);
  await expect(left(awake)).toHaveText('151 left here of 160');
  expect((await (await request.get(`/api/canvases/${id}`)).json()).laid).toBe(9);
  await page.unroute('**/marks');
  await session.send('Debugger.disable');
  await session.detach();
  await expect(left(page)).toHaveText('151 left here of 160');
  // It may wait for the answer of what it was sending until that is given up.
  await expect(page.getByTestId('saved')).toContainText('Every mark is saved.', {
    timeout: WRITE_TIMEOUT_MS,
  });
});

test('a browser that is told to keep nothing works all the same', async ({ page, request }) => {
  const id = await shelve(request, 'Nothing kept');
  await page.addInitScript(() => {
    for (const store of ['localStorage', 'sessionStorage', 'indexedDB']) {
      const get = () => {
        throw new DOMException('Access is denied for this document.', 'SecurityError');
      };
      Object.defineProperty(window, store, { get });
    }
  });
  await page.goto(`/canvas/${id}/checkin`);
  await page.getByLabel('Code on this bag').fill('412');
  await page.keyboard.press('Enter');
  await expect(page.locator('li:has(> button[title="Moss"])')).toContainText('1/1');
  await openBench(page, id);
  await cloth(page).focus();
  for (const key of ['ArrowUp', 'Space']) await page.keyboard.press(key);
  await expect(left(page)).toHaveText('159 left here of 160');
  await allSaved(page);
  await page.keyboard.press('Control+z');
  await expect(left(page)).toHaveText('160 left here of 160');
  for (const station of ['sections', 'placing', 'kitup', 'kitup/labels', 'chart', 'finish']) {
    await page.goto(`/canvas/${id}/${station}`);
    await expect(page.locator('main')).toContainText(/\w{4}/);
  }
});

test('something is found on the bench: a square, a section, a colour, a length without a unit', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Found on the bench');
  await page.goto(`/canvas/${id}/bench`);
  const field = page.getByLabel('Find: column and row, distances, section, or colour');
  const section = page.getByRole('button', { name: /choose another/ });
  const find = async (text: string) => {
    await field.fill(text);
    await field.press('Enter');
  };
  // 24 columns are cut into 20 and 4: column 22 is in the second section.
  await find('22 3');
  await expect(section).toContainText('Section 2 of 2');
  // The next one can be typed at once, and none of its letters acts on the canvas.
  await expect(field).toBeFocused();
  await find('s1');
  await expect(section).toContainText('Section 1 of 2');
  await find('s9');
  await expect(page.getByText('There is no section 9; the last is 2.')).toBeVisible();
  await find('5.5 1.5');
  await page.getByRole('button', { name: 'centimetres' }).click();
  // 5.5 cm are 22 squares.
  await expect(section).toContainText('Section 2 of 2');
  await find('0+3 0+2');
  await expect(section).toContainText('Section 1 of 2');
  await find('1204');
  await expect(page.getByLabel(/colour 1204 in front/).first()).toBeVisible();
});

test('a page of which a part did not arrive says so, and comes whole when it is loaded again', async ({
  page,
  request,
  quietConsole,
}) => {
  const id = await shelve(request, 'In parts');
  await page.route(/_astro\/FinishStation/, (route) => route.abort());
  await page.goto(`/canvas/${id}/finish`);
  const slip = page.getByRole('alert').filter({ hasText: 'Part of this page has not arrived' });
  await expect(slip).toBeVisible({ timeout: 20_000 });
  // What did not arrive is told in the console too.
  expect(quietConsole.splice(0).join()).toContain('FinishStation');
  await page.unroute(/_astro\/FinishStation/);
  await slip.getByRole('button', { name: 'Load again' }).click();
  await expect(page.locator('main').getByRole('heading').first()).toBeVisible();
  await expect(page.locator('astro-island[ssr]')).toHaveCount(0);
  await expect(slip).toBeHidden();
});

test('a chart whose drawing does not arrive says so, and the rest of its page is there', async ({
  page,
  quietConsole,
}) => {
  await page.route(/_astro\/charts\./, (route) => route.abort());
  await page.goto(`/canvas/${DEMO.kingfisher}/progress`);
  await expect(page.getByText('The drawing of this chart has not arrived').first()).toBeVisible();
  await expect(page.locator('main').getByRole('heading').first()).toBeVisible();
  expect(quietConsole).toEqual([]);
});
