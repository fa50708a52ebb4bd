import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';
import { allSaved, cloth, expect, left, look, openBench, pointOf, shelve, test } from './bench';

/** Drills laid, as the server has them. */
const laidOf = async (page: Page, id: string): Promise<number> =>
  (await (await page.request.get(`/api/canvases/${id}`)).json()).laid;

/** What the page says aloud, and with which speed, instead of a voice that this machine does not have. */
async function listen(page: Page): Promise<() => Promise<{ words: string; rate: number }[]>> {
  await page.addInitScript(() => {
    const said: { words: string; rate: number }[] = [];
    Object.assign(window, { said });
    class Utterance {
      rate = 1;
      constructor(readonly text: string) {}
    }
    Object.assign(window, { SpeechSynthesisUtterance: Utterance });
    Object.defineProperty(window, 'speechSynthesis', {
      value: { cancel: () => {}, speak: ({ text, rate }: Utterance) => said.push({ words: text, rate }) },
    });
  });
  return () => page.evaluate(() => (window as unknown as { said: { words: string; rate: number }[] }).said);
}

test('a section of 320 drills in three colours is finished in four actions, by keyboard alone', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Few actions');
  await openBench(page, id);
  let actions = 0;
  for (const count of ['80 left here of 80', '80 left here of 80', '0 left here of 80']) {
    await page.keyboard.press('a');
    actions++;
    await expect(left(page)).toHaveText(count);
    // A second press within a moment would be a slip of the finger.
    await page.waitForTimeout(650);
  }
  await page.keyboard.press('Enter');
  actions++;
  await expect(page.getByRole('button', { name: /^Section 2 of 2/ })).toBeVisible();
  await allSaved(page);
  expect(await laidOf(page, id)).toBe(320);
  expect(actions).toBeLessThanOrEqual(12);
  console.log(`actions per 100 drills, colour by colour: ${((actions / 320) * 100).toFixed(2)}`);
});

test('while bars are planned anew, the colours in line do not move from under a finger', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Standing still');
  await openBench(page, id);
  const guide = page.getByTestId('guide');
  await guide.waitFor();
  await page.getByRole('button', { name: 'All of it laid' }).click();
  await expect(left(page)).toHaveText('80 left here of 80');
  await page.waitForTimeout(650);
  const colour = page.getByRole('region', { name: 'The colour in front' }).getByRole('listitem').first();
  // Where it is in each frame, from the press on.
  await colour.evaluate((element) => {
    const tops: number[] = [];
    const look = () => {
      tops.push(element.getBoundingClientRect().top + scrollY);
      requestAnimationFrame(look);
    };
    look();
    Object.assign(window, { tops });
  });
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(left(page)).toHaveText('160 left here of 160');
  await guide.waitFor();
  const tops = await page.evaluate(() => (window as unknown as { tops: number[] }).tops);
  expect(Math.min(...tops)).toBeGreaterThan(Math.min(tops[0]!, tops.at(-1)!) - 8);
});

test('one key lays bar after bar, a held key and a double click lay one each, and all of it is undone after a reload', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Bar by bar');
  let marks = 0;
  page.on('request', (sent) => {
    if (sent.method() === 'POST' && sent.url().endsWith(`/${id}/marks`)) marks++;
  });
  await openBench(page, id);
  // Of each colour the upper rows are laid: bar by bar the whole section takes a minute.
  const rows = [0, 1, 2, 3, 4, 5, 8, 9, 10, 12, 13, 14];
  const laidBefore = 20 * rows.length;
  await request.post(`/api/canvases/${id}/marks`, {
    data: { id: randomUUID(), kind: 'lay', runs: rows.flatMap((row) => [24 * row, 20]), sittingId: null },
  });
  await expect(left(page)).toHaveText('40 left here of 160');
  await look(page);
  const guide = page.getByTestId('guide');
  await expect(guide).toContainText('Placement 1 of');
  const first = await guide.textContent();
  await page.keyboard.down('PageDown');
  await page.keyboard.down('PageDown');
  await page.keyboard.down('PageDown');
  await page.keyboard.up('PageDown');
  await expect(guide).not.toHaveText(first!);
  await allSaved(page);
  const once = (await laidOf(page, id)) - laidBefore;
  expect(once).toBeGreaterThan(1);
  expect(once).toBeLessThanOrEqual(15);
  expect(marks).toBe(1);
  await guide.getByRole('button', { name: 'Lay it' }).dblclick();
  await allSaved(page);
  // The pedal goes on, wherever the focus is.
  const twice = (await laidOf(page, id)) - laidBefore;
  expect(twice).toBeGreaterThan(once);
  // One bar, which may be longer than the first; no tip lays more than 15.
  expect(twice - once).toBeLessThanOrEqual(15);
  expect(marks).toBe(2);
  // Bar after bar until the section is done; the colours come forward by themselves.
  let presses = 2;
  for (; presses < 200 && !(await page.getByRole('button', { name: /go on to 2/ }).isVisible()); presses++) {
    await page.keyboard.press('PageDown');
    await page.waitForTimeout(60);
  }
  await allSaved(page);
  expect(await laidOf(page, id)).toBe(320);
  console.log(`actions per 100 drills, bar by bar: ${((presses / (320 - laidBefore)) * 100).toFixed(2)}`);
  await page.reload();
  await cloth(page).waitFor();
  for (let left = 320; left > laidBefore; ) {
    await page.keyboard.press('Control+z');
    await expect.poll(() => laidOf(page, id)).toBeLessThan(left);
    left = await laidOf(page, id);
  }
  expect(await laidOf(page, id)).toBe(laidBefore);
});

test('by pedal and voice alone: rows are said, the pedal lays them, the space bar pauses and changes the speed', async ({
  page,
  request,
}) => {
  const said = await listen(page);
  // Sent together, for on a busy machine a key would be held as long as the second takes to come.
  const tap = () => Promise.all([page.keyboard.down('Space'), page.keyboard.up('Space')]);
  const id = await shelve(request, 'By voice');
  await page.addInitScript(() =>
    localStorage.setItem('oculent-bench', JSON.stringify({ guide: 'rows', voice: true })),
  );
  await openBench(page, id);
  await expect
    .poll(async () => (await said()).at(-1)?.words)
    .toBe('Pot 2, 4 1 2, Moss: 160 drills. Row 1, from column 1: 20.');
  await page.keyboard.press('PageDown');
  await expect.poll(async () => (await said()).at(-1)?.words).toBe('Row 2, from column 1: 20.');
  await expect(left(page)).toHaveText('140 left here of 160');
  // One back, and once more what was said.
  await page.keyboard.press('s');
  expect((await said()).slice(-2).map(({ words }) => words)).toEqual([
    'Row 2, from column 1: 20.',
    'Row 2, from column 1: 20.',
  ]);
  const before = (await said()).length;
  await tap();
  await page.keyboard.press('PageDown');
  await expect(left(page)).toHaveText('120 left here of 160');
  expect((await said()).length).toBe(before);
  await tap();
  await expect
    .poll(async () => (await said()).at(-1))
    .toEqual({ words: 'Row 3, from column 1: 20.', rate: 1 });
  // Held down, it changes the speed and pauses: pressed again it goes on.
  await page.keyboard.down('Space');
  await page.waitForTimeout(750);
  await page.keyboard.up('Space');
  await tap();
  await expect.poll(async () => (await said()).at(-1)?.rate).toBe(1.4);
  for (let row = 0; row < 6; row++) {
    await page.keyboard.press('PageDown');
    await page.waitForTimeout(60);
  }
  await expect.poll(async () => (await said()).at(-1)?.words).toContain('9 8, Dusk');
  await allSaved(page);
  expect(await laidOf(page, id)).toBe(160);
});

test('words that come up under the first touch leave the squares where they are', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Early words');
  await openBench(page, id);
  const before = (await cloth(page).boundingBox())!;
  const point = await pointOf(page, { x: 0, y: 0, width: 20, height: 16 }, 0, 0);
  // Two lines of words below, while the page may still find its layout.
  const words = (lines: number) =>
    cloth(page).evaluate((view, height) => {
      const board = view.closest('section')!;
      board.style.paddingBottom = `${height}px`;
    }, lines * 40);
  await page.mouse.click(point.x, point.y);
  await expect(left(page)).toHaveText('159 left here of 160');
  await words(2);
  await expect.poll(async () => (await cloth(page).boundingBox())!.height).toBeLessThan(before.height);
  await page.keyboard.press('l');
  await page.mouse.click(point.x, point.y);
  await expect(left(page)).toHaveText('160 left here of 160');
});

test('a touch takes a run, a row, a region, a planned bar or an area, and lifts as much', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Reaches');
  await openBench(page, id);
  const section = { x: 0, y: 0, width: 20, height: 16 };
  const touch = async (x: number, y: number) => {
    const { x: px, y: py } = await pointOf(page, section, x, y);
    await page.mouse.click(px, py);
  };
  const reach = (name: string) => page.getByLabel('How far a touch reaches').selectOption({ label: name });
  await reach('its row');
  await touch(4, 1);
  await expect(left(page)).toHaveText('140 left here of 160');
  await reach('its region');
  await page.keyboard.press('l');
  await touch(4, 1);
  await expect(left(page)).toHaveText('160 left here of 160');
  await page.keyboard.press('l');
  // An area by two taps, so that no drag is needed.
  await reach('an area');
  await touch(2, 2);
  await expect(page.getByText('Now touch the opposite corner')).toBeVisible();
  await touch(5, 11);
  await expect(left(page)).toHaveText('136 left here of 160');
  // And by a drag.
  const [from, to] = [await pointOf(page, section, 10, 2), await pointOf(page, section, 12, 3)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
  await expect(left(page)).toHaveText('130 left here of 160');
  await reach('its placement');
  await expect(page.getByTestId('guide')).toContainText('Placement');
  // While bars are planned anew a touch lays nothing, and says so: then it takes another one.
  await expect(async () => {
    await touch(0, 0);
    await expect(left(page)).not.toHaveText('130 left here of 160', { timeout: 1000 });
  }).toPass();
  await allSaved(page);
  const after = await laidOf(page, id);
  expect(after).toBeGreaterThan(31);
  expect(after).toBeLessThanOrEqual(30 + 15);
  // Popped is a state of its own until it is laid again.
  await reach('one square');
  await page.keyboard.press('o');
  await touch(2, 2);
  await expect(page.getByTestId('popped')).toContainText('1 popped drill');
  await allSaved(page);
  await page.reload();
  await expect(page.getByTestId('popped')).toContainText('1 popped drill');
  await touch(2, 2);
  await expect(page.getByTestId('popped')).toHaveCount(0);
});

test('the view follows the plan, never a hand: marking by touch leaves the squares where they are', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Stands still');
  await openBench(page, id);
  await expect(page.getByTestId('guide')).toContainText('Placement');
  const section = { x: 0, y: 0, width: 20, height: 16 };
  for (let x = 0; x < 8; x++) {
    const spot = await pointOf(page, section, x, 7);
    await page.mouse.click(spot.x, spot.y);
    await page.waitForTimeout(90);
  }
  await allSaved(page);
  const { runs } = {
    runs: (await (await request.get(`/api/canvases/${id}/laid-by-day?zone=UTC`)).json()).days[0].laid,
  };
  expect(runs).toEqual([7 * 24, 8]);
});

test.describe('by a clock that is set', () => {
  test.use({ ownContext: true });
  test('bad drills by one key, the timer with its end, a forgotten one trimmed with consent', async ({
    page,
    request,
  }) => {
    const id = await shelve(request, 'Timer');
    await page.addInitScript(() => localStorage.setItem('oculent-sitting', JSON.stringify({ minutes: 45 })));
    await page.clock.install({ time: new Date() });
    // The machine’s clock, by which sittings are timed, is not set on with it.
    await page.addInitScript(() => {
      const { get } = Headers.prototype;
      Headers.prototype.get = function (name) {
        return name === 'date' ? null : get.call(this, name);
      };
    });
    await openBench(page, id);
    await page.keyboard.press('x');
    await page.keyboard.press('x');
    await expect(page.getByRole('button', { name: 'One bad drill: 2 so far' })).toBeVisible();
    await page.getByRole('button', { name: 'One less' }).click();
    await expect
      .poll(async () => (await (await request.get(`/api/canvases/${id}/marks`)).json()).trash.thrown)
      .toBe(7);
    // Begun in the books before the clock is set on: what waits to be sent says for how long.
    const begun = page.waitForResponse((answer) => answer.url().endsWith('/sittings'));
    await page.keyboard.press('t');
    await expect(page.getByRole('timer')).toBeVisible();
    await begun;
    await page.clock.fastForward('46:00');
    await expect(page.getByText('45 minutes are over.')).toBeVisible();
    await page.getByRole('button', { name: '10 more minutes' }).click();
    await expect(page.getByText('45 minutes are over.')).toHaveCount(0);
    await page.clock.fastForward('10:00');
    await expect(page.getByText('55 minutes are over.')).toBeVisible();
    await page.clock.fastForward('05:00:00');
    await expect(page.getByText('nothing was marked yet')).toBeVisible();
    await page.getByRole('button', { name: /^It ended/ }).click();
    await expect(page.getByRole('button', { name: 'Start a sitting' })).toBeVisible();
  });
});

test.describe('on a tablet whose clock goes an hour and a half early', () => {
  test.use({ ownContext: true });
  test('a sitting lasts as long as it lasts, and is not taken for a forgotten one', async ({
    page,
    request,
  }) => {
    const id = await shelve(request, 'Early clock');
    await page.clock.install({ time: Date.now() + 5_400_000 });
    await openBench(page, id);
    await page.keyboard.press('t');
    await expect(page.getByRole('timer')).toHaveText(/^0:0\d$/);
    await page.keyboard.press('a');
    await allSaved(page);
    await page.reload();
    await expect(page.getByRole('timer')).toHaveText(/^0:\d\d$/);
    await expect(page.getByText('The timer runs since')).toHaveCount(0);
  });
});

test('eyes and hands: what was chosen is there after a reload, and the cross-hair names its distances', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Comfort');
  await openBench(page, id);
  await page.getByRole('button', { name: 'Eyes and hands' }).click();
  const dialog = page.getByRole('dialog');
  for (const name of [
    'Larger symbols',
    'Thicker lines between the squares',
    'More contrast',
    /^The slip stands on the left/,
  ])
    await dialog.getByLabel(name).check();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('h');
  await page.keyboard.press('k');
  await cloth(page).focus();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByTestId('cross-hair')).toContainText('Column 11, row 8: 2.6 cm from the left');
  await page.reload();
  await cloth(page).waitFor();
  await expect(page.locator('html')).toHaveAttribute('data-contrast');
  const [slip, canvas] = [page.getByRole('region', { name: 'The colour in front' }), cloth(page)];
  expect((await slip.boundingBox())!.x).toBeLessThan((await canvas.boundingBox())!.x);
  await expect(page.getByRole('button', { name: 'Count' })).toHaveAttribute('aria-pressed', 'true');
});

test('without a chart a section is laid by a share, and progress says how sure it is', async ({
  page,
  request,
}) => {
  const id = crypto.randomUUID();
  const data = { id, title: 'By shares', shape: 'square', pitchMm: 2.5, width: 20, height: 20 };
  expect((await request.post('/api/canvases', { data })).status()).toBe(201);
  const lines = [1, 2].map((line) => ({
    line: null,
    keyNumber: String(line),
    symbol: null,
    code: `70${line}`,
    name: '',
    hex: null,
    finish: 'plain',
    neededDrills: 200,
    packets: 1,
  }));
  expect((await request.put(`/api/canvases/${id}/sheet`, { data: { lines } })).ok()).toBe(true);
  await page.goto(`/canvas/${id}/bench`);
  await page.getByRole('button', { name: 'Half', exact: true }).click();
  await expect(left(page)).toHaveText('200 left here of 400');
  await page.waitForTimeout(650);
  await page.getByRole('button', { name: 'A quarter' }).click();
  await expect(left(page)).toHaveText('300 left here of 400');
  await allSaved(page);
  await page.getByRole('checkbox', { name: /701/ }).check();
  await page.goto(`/canvas/${id}/progress`);
  await expect(page.getByTestId('estimate')).toContainText(
    'about 200 drills are laid, four times in five between',
  );
  await expect(page.getByText('25.00 %').first()).toBeVisible();
});

test('another canvas on the bench is a tap away', async ({ page, request }) => {
  const ids = [await shelve(request, 'Here'), await shelve(request, 'Over there')];
  for (const id of ids)
    await request.post(`/api/canvases/${id}/marks`, {
      data: { id: crypto.randomUUID(), kind: 'lay', runs: [23, 1] },
    });
  await openBench(page, ids[0]!);
  const others = page.getByRole('navigation', { name: 'Other canvases on the bench' });
  const there = others.getByRole('link').first();
  await expect(there).toContainText('Over there');
  await expect(others.getByRole('link', { name: /^Here/ })).toHaveCount(0);
  await there.click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Over there');
});
