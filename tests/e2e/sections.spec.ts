import { randomUUID } from 'node:crypto';
import { cloth, DEMO, expect, pointOf, shelve, test } from './bench';

/** The canvas of the tests: 24 × 16 squares in stripes, 376 drills. */
const WHOLE = { x: 0, y: 0, width: 24, height: 16 };
const FOUR = [0, 1, 2, 3].map((i) => ({
  rects: [{ x: (i % 2) * 12, y: i < 2 ? 0 : 8, width: 12, height: 8 }],
}));

test('a cut is proposed beside the present one, kept, followed everywhere, and taken back after a reload', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Cut by sittings');
  // What is laid stays, and a finished section stays as it is.
  await request.put(`/api/canvases/${id}/sections`, { data: { id: randomUUID(), sections: FOUR } });
  const runs = Array.from({ length: 8 }, (_, y) => [y * 24, 12]).flat();
  await request.post(`/api/canvases/${id}/marks`, { data: { id: randomUUID(), kind: 'lay', runs } });
  await page.goto(`/canvas/${id}/sections/cut`);
  const figures = page.getByTestId('cut-figures');
  await expect(figures.getByRole('row', { name: /Sections left 3/ })).toBeVisible();
  await page.getByLabel('Minutes of a sitting').fill('5');
  await page.getByRole('button', { name: 'Show this cut' }).click();
  await expect(figures).toContainText(
    /sections, \d+ to \d+ min each, for sittings of 5|sections?, \d+ min each/,
  );
  const shown = Number(await figures.locator('.big-number').textContent());
  expect(shown).toBeGreaterThan(3);
  // Nothing is kept before it is said.
  const kept = async () => (await (await request.get(`/api/canvases/${id}/sections`)).json()).sections;
  expect(await kept()).toHaveLength(4);
  await page.getByRole('button', { name: 'Keep this cut' }).click();
  await expect(page.getByRole('button', { name: `Undo: a cut into ${shown + 1}` })).toBeVisible();
  const sections = await kept();
  expect(sections).toHaveLength(shown + 1);
  expect(sections[0]).toMatchObject({ number: 1, laid: 96, rects: FOUR[0]!.rects });
  expect(sections.reduce((sum: number, { drills }: { drills: number }) => sum + drills, 0)).toBe(376);
  expect(sections.reduce((sum: number, { laid }: { laid: number }) => sum + laid, 0)).toBe(96);
  for (const station of ['bench', 'placing']) {
    await page.goto(`/canvas/${id}/${station}`);
    await expect(page.getByRole('button', { name: /choose another/ })).toContainText(`of ${shown + 1}`);
  }
  await page.goto(`/canvas/${id}/sections/cut`);
  await page.getByRole('button', { name: /^Undo: a cut/ }).click();
  await expect(figures.getByRole('row', { name: /Sections left 3/ })).toBeVisible();
  expect(await kept()).toHaveLength(4);
  await page.getByRole('button', { name: /^Redo: a cut/ }).click();
  await expect.poll(kept).toHaveLength(shown + 1);
});

test('by hand and by keyboard alone: split, move a side, name, join, a step back, keep', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Cut by hand');
  await request.put(`/api/canvases/${id}/sections`, { data: { id: randomUUID(), sections: FOUR } });
  await page.goto(`/canvas/${id}/sections/cut`);
  await page.getByLabel('How to cut').selectOption({ label: 'By hand' });
  await cloth(page).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('Section 4: 12 × 8 squares')).toBeVisible();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('Section 2: 12 × 8 squares')).toBeVisible();
  const press = async (name: string) => {
    await page.getByRole('button', { name }).focus();
    await page.keyboard.press('Enter');
  };
  await page.getByLabel('Name').fill('Tail');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Section 2, Tail: 12 × 8 squares')).toBeVisible();
  await page.getByLabel('Which side').selectOption('left');
  await page.getByLabel('by squares').fill('2');
  await press('Outwards');
  await expect(page.getByText('Section 2, Tail: 14 × 8 squares')).toBeVisible();
  await page.getByLabel('Which side').selectOption('top');
  await press('Outwards');
  await expect(page.getByRole('alert')).toContainText('The panel ends there.');
  await page.getByLabel('Split after').fill('5');
  await press('Above and below');
  await expect(page.getByText('Section 2, Tail: 14 × 5 squares')).toBeVisible();
  await press('One step back');
  await expect(page.getByText('Section 2, Tail: 14 × 8 squares')).toBeVisible();
  await press('Choose several to join');
  await cloth(page).focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await press('Join 2 sections');
  await expect(page.getByText('Section 2, Tail: 14 × 16 squares')).toBeVisible();
  await press('Keep this cut');
  await expect(page.getByRole('button', { name: 'Undo: a cut into 3' })).toBeVisible();
  const { sections } = await (await request.get(`/api/canvases/${id}/sections`)).json();
  expect(sections.map(({ name, drills }: { name: string; drills: number }) => [name, drills])).toEqual([
    [null, 80],
    ['Tail', 200],
    [null, 96],
  ]);
  // The bench opens a section that is no rectangle, and marks in it alone.
  await page.goto(`/canvas/${id}/bench?section=2`);
  await page.getByRole('button', { name: 'All of it laid' }).click();
  await expect(page.getByTestId('saved')).toContainText('Every mark is saved.');
  const marked = await (await request.get(`/api/canvases/${id}/sections`)).json();
  expect(marked.sections.filter(({ laid }: { laid: number }) => laid > 0)).toHaveLength(1);
});

test('a cut by hand tells that another screen cut the canvas since it was begun', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Cut at two screens');
  const elsewhere = (data: object) =>
    request.put(`/api/canvases/${id}/sections`, { data: { id: randomUUID(), ...data } });
  await elsewhere({ sections: FOUR });
  await page.goto(`/canvas/${id}/sections/cut`);
  await page.getByLabel('How to cut').selectOption({ label: 'By hand' });
  await expect(page.getByText('Section 1: 12 × 8 squares')).toBeVisible();
  await page.getByRole('button', { name: 'Left and right' }).click();
  const other = page.getByText('was cut on another screen since you began');
  await expect(page.getByText('Section 1: 6 × 8 squares')).toBeVisible();
  await expect(other).toBeHidden();
  await elsewhere({ columns: 24, rows: 8 });
  await expect(other).toBeVisible();
  // What was drawn here stays until it is kept or let go.
  await expect(page.getByText('Section 1: 6 × 8 squares')).toBeVisible();
  await page.getByRole('button', { name: 'One step back' }).click();
  await expect(other).toBeHidden();
  await expect(page.getByText('Section 1: 24 × 8 squares')).toBeVisible();
});

test('a focal part is drawn on the picture, and the rest flows round it', async ({ page, request }) => {
  const id = await shelve(request, 'Focal part');
  await page.goto(`/canvas/${id}/sections/cut`);
  await page.getByLabel('How to cut').selectOption({ label: 'A focal part first' });
  await expect(page.getByRole('button', { name: 'Draw the focal part first' })).toBeDisabled();
  const from = await pointOf(page, WHOLE, 6, 4);
  const to = await pointOf(page, WHOLE, 13, 9);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, to.y, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByLabel('From column')).toHaveValue('7');
  await expect(page.getByLabel('Columns', { exact: true })).toHaveValue('8');
  await expect(page.getByLabel('Rows', { exact: true })).toHaveValue('6');
  await page.getByLabel('Minutes of a sitting').fill('600');
  await page.getByRole('button', { name: 'Show this cut' }).click();
  await page.getByRole('button', { name: 'Keep this cut' }).click();
  await expect(page.getByRole('button', { name: 'Undo: a cut into 2' })).toBeVisible();
  const { sections, plan } = await (await request.get(`/api/canvases/${id}/sections`)).json();
  expect(plan.order).toMatchObject({ way: 'focal first', focal: { x: 10, y: 7 } });
  expect(sections[0].rects).toEqual([{ x: 6, y: 4, width: 8, height: 6 }]);
  expect(sections[0]).toMatchObject({ order: 1, drills: 48 });
});

test('order and cover: the hand in the way is told, an order without it is a press away, and paper comes of it', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Order and cover');
  await request.put(`/api/canvases/${id}/sections`, { data: { id: randomUUID(), sections: FOUR } });
  await page.goto(`/canvas/${id}/sections/cover`);
  const answer = page.getByTestId('cover-answer');
  await expect(answer).toContainText('Hand clear');
  await page.getByLabel('The cover').selectOption({ label: 'Film folded back' });
  // Two sections have a bare neighbour to the right of the hand.
  await expect(answer).toContainText('2');
  await expect(answer).toContainText('sections in which your hand rests on bare adhesive');
  await expect(page.getByTestId('cover-plan')).toContainText(
    'to row 8, 2.0 cm (0.8 in) from the top, for sections 1–2',
  );
  await page
    .getByTestId('orders')
    .getByRole('button', { name: /Row by row from the top right/ })
    .click();
  await expect(answer).toContainText('Hand clear');
  await expect(page.getByTestId('orders').getByRole('button', { pressed: true })).toContainText(
    'top right ✓',
  );
  // For the other hand it is the other way round; both are kept.
  await page.getByRole('button', { name: 'Left hand', exact: true }).click();
  await expect(answer).toContainText('bare adhesive (marked !)');
  await page.reload();
  await expect(page.getByRole('button', { name: 'Left hand', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  const { plan, wish } = await (await request.get(`/api/canvases/${id}/sections`)).json();
  expect([plan.order.corner, wish.hand, wish.cover]).toEqual(['top right', 'left', 'fold']);
  await page.getByLabel('The cover').selectOption({ label: 'Sheets of release paper' });
  await expect(page.getByTestId('cover-plan')).toContainText('1 sheet of 210 × 297 mm');
  await expect(page.getByText('Never wax paper, foil or cling film', { exact: false })).toBeHidden();
  await page.getByText('What never to use').click();
  await expect(page.getByText('Never wax paper, foil or cling film', { exact: false })).toBeVisible();
  for (const [name, file] of [
    ['Map of the sections (PDF)', 'Order and cover sections.pdf'],
    ['Cover plan (PDF)', 'Order and cover cover plan.pdf'],
  ] as const) {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name }).click();
    expect((await download).suggestedFilename()).toBe(file);
  }
  // A light pad that no section fits is told too.
  await page.getByText('Light pad, arm and frame').click();
  await page.getByRole('combobox', { name: 'Light pad' }).selectOption('own');
  await page.getByLabel('Pad’s long side, mm').fill('40');
  await page.getByLabel('Pad’s long side, mm').blur();
  await page.getByLabel('Pad’s short side, mm').fill('40');
  await page.getByLabel('Pad’s short side, mm').blur();
  await page.goto(`/canvas/${id}/sections`);
  await expect(page.getByTestId('all-sections')).toContainText('4');
  await expect(page.getByTestId('section-minutes')).toContainText(/about \d+ min/);
});

test('the pull list: pots to take out, for one section and for the next ones', async ({ page }) => {
  await page.goto(`/canvas/${DEMO.kingfisher}/sections/pull?section=21`);
  // The pace is learnt from all sittings first.
  await expect(
    page.getByText(/to take out for section 21, \d+ drills to lay; \d+\.\d % bad ones/),
  ).toBeVisible({
    timeout: 30_000,
  });
  const table = page.getByRole('table', { name: 'What to take out, as the pots stand' });
  const places = await table.getByRole('cell', { name: /^Pot \d+$/ }).allTextContents();
  const numbers = places.map((place) => Number(place.replace('Pot ', '')));
  expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
  await page.getByLabel('Sections at once, in the order of the work').fill('3');
  await expect(page.getByText('to take out for sections 21–23', { exact: false })).toBeVisible();
  expect(await table.getByRole('row').count()).toBeGreaterThan(numbers.length);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Print (PDF)' }).click();
  expect((await download).suggestedFilename()).toBe('Kingfisher at the Sluice pull list.pdf');
});

test('a cut of a large canvas tells how far it is and can be cancelled; another tab hears of a new cut', async ({
  page,
  context,
  request,
}) => {
  await page.goto(`/canvas/${DEMO.glasshouse}/sections/cut`);
  await page.getByRole('button', { name: 'Show this cut' }).click();
  await expect(page.getByRole('progressbar', { name: 'Cutting' })).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Show this cut' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep this cut' })).toBeHidden();
  const id = await shelve(request, 'Two tabs');
  await page.goto(`/canvas/${id}/bench`);
  const second = await context.newPage();
  await second.goto(`/canvas/${id}/sections/cut`);
  await second.getByLabel('How to cut').selectOption({ label: 'Strips' });
  await second.getByLabel('Breadth in squares').fill('8');
  await second.getByRole('button', { name: 'Show this cut' }).click();
  await second.getByRole('button', { name: 'Keep this cut' }).click();
  await expect(second.getByRole('button', { name: 'Undo: a cut into 3' })).toBeVisible();
  await page.bringToFront();
  await expect(page.getByText(/The cut into sections was changed on another page/)).toBeVisible();
  await page.getByRole('button', { name: 'Show the newest' }).click();
  await expect(page.getByRole('button', { name: /choose another/ })).toContainText('of 3');
});

test('without a chart the canvas is cut by area, and a section laid by area', async ({ page, request }) => {
  const id = await shelve(request, 'Cut without a chart', false);
  await page.goto(`/canvas/${id}/sections/cut`);
  await page.getByLabel('Minutes of a sitting').fill('5');
  await page.getByRole('button', { name: 'Show this cut' }).click();
  await page.getByRole('button', { name: 'Keep this cut' }).click();
  await expect(page.getByRole('button', { name: /^Undo: a cut into \d+/ })).toBeVisible();
  const { sections } = await (await request.get(`/api/canvases/${id}/sections`)).json();
  expect(sections.length).toBeGreaterThan(2);
  expect(sections.reduce((sum: number, { drills }: { drills: number }) => sum + drills, 0)).toBe(384);
  await page.goto(`/canvas/${id}/bench?section=2`);
  await page.getByRole('button', { name: 'Section laid' }).click();
  await expect(page.getByTestId('saved')).toContainText('Every mark is saved.');
  const after = await (await request.get(`/api/canvases/${id}/sections`)).json();
  expect(after.sections[1].laid).toBe(after.sections[1].drills);
  await page.goto(`/canvas/${id}/sections/pull`);
  await expect(page.getByText('this canvas has none yet', { exact: false })).toBeVisible();
});

test.describe('by touch', () => {
  test.use({ hasTouch: true, isMobile: true, viewport: { width: 390, height: 844 } });

  test('a focal part is drawn with a finger that holds still first; a swipe only moves the picture', async ({
    page,
    request,
  }) => {
    const id = await shelve(request, 'Focal part by touch');
    await page.goto(`/canvas/${id}/sections/cut`);
    await page.getByLabel('How to cut').selectOption({ label: 'A focal part first' });
    await cloth(page).scrollIntoViewIfNeeded();
    const cdp = await page.context().newCDPSession(page);
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', touchPoints: { x: number; y: number }[]) =>
      cdp.send('Input.dispatchTouchEvent', { type, touchPoints });
    const from = await pointOf(page, WHOLE, 6, 4);
    const moves = Array.from({ length: 8 }, (_, i) => ({ x: from.x + (i + 1) * 6, y: from.y + (i + 1) * 5 }));
    // All at once: on a busy machine a finger that is sent step by step holds still between two of them.
    await Promise.all([
      touch('touchStart', [from]),
      ...moves.map((point) => touch('touchMove', [point])),
      touch('touchEnd', []),
    ]);
    await expect(page.getByRole('button', { name: 'Draw the focal part first' })).toBeDisabled();
    await touch('touchStart', [from]);
    await page.waitForTimeout(700);
    for (const point of moves) await touch('touchMove', [point]);
    await touch('touchEnd', []);
    await expect(page.getByRole('button', { name: 'Show this cut' })).toBeEnabled();
    expect(Number(await page.getByLabel('Columns', { exact: true }).inputValue())).toBeGreaterThan(1);
  });
});
