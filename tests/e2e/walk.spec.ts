import { readFile } from 'node:fs/promises';
import { allSaved, chartPng, cloth, expect, pointOf, SHEET, test } from './bench';

const WHOLE = { x: 0, y: 0, width: 24, height: 16 };

test('from the heap of bags to the first marked drills', async ({ page, baseURL }) => {
  test.setTimeout(180_000);
  let id = '';

  await test.step('a new canvas goes on the shelf', async () => {
    await page.goto('/');
    await page.getByRole('link', { name: 'New canvas' }).click();
    await page.getByLabel('Title').fill('Hill in three stripes');
    await page.getByLabel('Width').fill('6');
    await page.getByLabel('Height').fill('4');
    await expect(page.getByText('24 × 16 squares, 384 in all: 6 × 4 cm (2.4 × 1.6 in)')).toBeVisible();
    await page.getByRole('button', { name: 'Put it on the shelf' }).click();
    await page.waitForURL(/\/checkin\/sheet$/);
    id = /canvas\/([^/]+)/.exec(page.url())![1]!;
  });

  await test.step('the sheet is pasted, looked at and saved', async () => {
    await page.getByLabel('Or paste the rows here').fill(SHEET);
    await expect(page.getByText('3 colours')).toBeVisible();
    await expect(page.getByText('376 drills needed, 4 bags')).toBeVisible();
    await expect(page.getByLabel('Colour code')).toHaveValue('2');
    await page.getByRole('button', { name: 'Save this colour list' }).click();
    await page.waitForURL(/\/chart\/read$/);
  });

  await test.step('the chart is read from a picture', async () => {
    await page
      .getByLabel('Choose a file')
      .setInputFiles({ name: 'hill.png', mimeType: 'image/png', buffer: chartPng() });
    await expect(page.getByText('376 drills')).toBeVisible();
    await expect(page.getByText('8 squares without a drill')).toBeVisible();
    // The sheet says 190, 96, 90; the picture has 192, 96, 88.
    await expect(page.getByText('2 colours with a different number of drills')).toBeVisible();
    await page.getByRole('button', { name: 'Save this chart' }).click();
    await page.waitForURL(/\/checkin$/);
  });

  await test.step('bags are counted by typing, and taken back', async () => {
    await expect(page.getByTestId('sentence')).toHaveText(
      'Nothing counted yet: 4 bags of 3 colours to find.',
    );
    const field = page.getByLabel('Code on this bag');
    await expect(field).toBeFocused();
    for (const typed of ['412', '★ x 80', '1204', '3717']) {
      await field.fill(typed);
      await field.press('Enter');
      await expect(field).toHaveValue('');
    }
    await expect(page.getByText('The colour list has no 3717')).toBeVisible();
    await expect(page.getByTestId('sentence')).toHaveText(
      '1 with too few drills, 1 with just enough, of 3 colours; 1 bag still to find. 1 bag not in the colour list.',
    );
    await expect(page.getByRole('button', { name: /98.*16 missing/ })).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.getByTestId('sentence')).toHaveText(
      '1 with too few drills, 1 with just enough, of 3 colours; 1 bag still to find.',
    );
    await page.reload();
    await expect(page.getByTestId('sentence')).toHaveText(
      '1 with too few drills, 1 with just enough, of 3 colours; 1 bag still to find.',
    );
    await page.getByRole('button', { name: 'As a table' }).click();
    await expect(page.getByRole('row', { name: /1204.*90.*200.*1 of 2/ })).toBeVisible();
  });

  await test.step('the pots stand in code order, and their labels are printed', async () => {
    await page.getByRole('link', { name: 'Kit-up' }).click();
    await page.getByLabel(/^Bottle case/).check();
    await page.getByRole('button', { name: 'Plan the pots' }).click();
    const pots = page
      .getByRole('region', { name: 'Bottle case' })
      .getByRole('button', { name: /: (98|412|1204) / });
    await expect(pots).toHaveCount(3);
    await expect(pots.nth(0)).toContainText('98');
    await expect(pots.nth(2)).toContainText('1204');
    await page.getByRole('link', { name: 'Labels' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Print (PDF)' }).click();
    const file = await (await download).path();
    expect((await readFile(file)).subarray(0, 5).toString()).toBe('%PDF-');
  });

  await test.step('the chart is looked at', async () => {
    await page.getByRole('link', { name: 'Chart', exact: true }).click();
    await cloth(page).waitFor();
    const point = await pointOf(page, WHOLE, 5, 9);
    await page.mouse.move(point.x, point.y);
    await expect(page.getByTestId('readout')).toContainText('Column 6, row 10');
    await expect(page.getByTestId('readout')).toContainText('1.4 cm from the left, 2.4 cm from the top');
    await expect(page.getByTestId('readout')).toContainText(/98 Dusk, pot \d+/);
    await page
      .getByRole('list', { name: 'Colours in code order' })
      .getByRole('button', { name: /1204/ })
      .click();
    await expect(page.getByText('drills of 1204, in front now')).toBeVisible();
  });

  await test.step('the canvas is cut, and a section picked', async () => {
    await page.getByRole('link', { name: 'Sections' }).click();
    await page.getByRole('link', { name: 'Cut', exact: true }).click();
    await page.getByLabel('How to cut').selectOption({ label: 'Blocks' });
    await page.getByLabel('Width in squares').fill('12');
    await page.getByLabel('Height in squares').fill('8');
    await page.getByRole('button', { name: 'Show this cut' }).click();
    await page.getByRole('button', { name: 'Keep this cut' }).click();
    await expect(page.getByRole('button', { name: 'Undo: a cut into 4' })).toBeVisible();
    await page.getByRole('link', { name: 'The sections' }).click();
    await expect(page.getByText('Section 1 of 4')).toBeVisible();
    const point = await pointOf(page, WHOLE, 18, 12);
    await page.mouse.click(point.x, point.y);
    await expect(page.getByText('Section 4 of 4')).toBeVisible();
    await expect(page.getByText('drills to lay, 2 colours')).toBeVisible();
    await page.getByRole('link', { name: 'Its placements' }).click();
  });

  await test.step('the placements are planned, drawn and read out', async () => {
    // Section 4: columns 13–24, rows 9–16. Dusk 12 × 4 = 48; straw 12 × 2 + 8 × 2 = 40.
    // With the 9-tip dusk takes 7: four rows of 9, and three columns of 4 beside them; rows alone take 8.
    const plan = page.getByTestId('plan');
    await expect(plan).toContainText('for 88 drills');
    await expect(plan).toContainText('No plan has fewer.');
    await page.getByRole('button', { name: /Dusk/ }).click();
    await expect(page.getByTestId('ways')).toContainText('Rows alone take 8, columns 12.');
    await expect(page.getByTestId('step')).toContainText('placement 1 of 7');
    await page.getByRole('button', { name: 'Tips', exact: true }).click();
    await page.getByRole('button', { name: 'Tip for 15 drills' }).click();
    await expect(page.getByTestId('step')).toContainText('of 4');
    await page.getByRole('button', { name: 'Tip for 15 drills' }).click();
    await expect(page.getByTestId('step')).toContainText('of 7');
    await page.getByRole('button', { name: 'Read out' }).click();
    await expect(
      page.getByText(/^Row 9, from column \d+: 9$|^Row 9, from column 13: 9, skip/).first(),
    ).toBeVisible();
  });

  await test.step('drills are marked, by cell, by drag and all at once', async () => {
    await page.goto(`/canvas/${id}/bench?section=4`);
    const section = { x: 12, y: 8, width: 12, height: 8 };
    await cloth(page).waitFor();
    await expect(page.getByTestId('left-here')).toHaveText('48 left here of 48');
    await page.getByRole('button', { name: 'Start a sitting' }).click();
    await expect(page.getByRole('timer')).toBeVisible();
    const first = await pointOf(page, section, 12, 8);
    await page.mouse.click(first.x, first.y);
    await expect(page.getByTestId('left-here')).toHaveText('47 left here of 48');
    const from = await pointOf(page, section, 13, 9);
    const to = await pointOf(page, section, 19, 9);
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(to.x, to.y, { steps: 3 });
    await page.mouse.up();
    await expect(page.getByTestId('left-here')).toHaveText('40 left here of 48');
    await allSaved(page);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByTestId('left-here')).toHaveText('47 left here of 48');
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(page.getByTestId('left-here')).toHaveText('40 left here of 48');
    await page.getByRole('button', { name: 'Next colour' }).click();
    await expect(page.getByTestId('left-here')).toHaveText('40 left here of 40');
    await page.getByRole('button', { name: 'All of it laid' }).click();
    await expect(page.getByText('40 of').first()).toBeVisible();
    await allSaved(page);
    await page.getByLabel('Note for this sitting').fill('First stripes');
    await page.getByRole('button', { name: 'Stop' }).click();
    await expect(page.getByRole('button', { name: 'Start a sitting' })).toBeVisible();
    await page.reload();
    await expect(page.getByTestId('laid-in-all')).toContainText('48 of 376 laid, 12.76 %');
  });

  await test.step('progress is shown', async () => {
    await page.getByRole('link', { name: 'Progress' }).click();
    await expect(page.getByText('12.76 %').last()).toBeVisible();
    await expect(page.getByText('48', { exact: true }).first()).toBeVisible();
    await expect(
      page.getByRole('img', { name: 'Drills laid in all, day by day, with the forecast' }).locator('canvas'),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Sittings' }).click();
    await expect(page.getByRole('row', { name: /First stripes/ })).toContainText('48');
    await page.getByRole('button', { name: 'Colours' }).click();
    await expect(page.getByRole('row', { name: /412.*192.*192/ })).toBeVisible();
  });

  await test.step('the shelf knows', async () => {
    await page.goto(`${baseURL}/`);
    const entry = page.getByRole('listitem').filter({ hasText: 'Hill in three stripes' });
    await expect(entry).toContainText('Section 4, colour 98, 40 left');
    await expect(entry).toContainText('12.76 %');
    await entry.getByRole('button', { name: 'Delete Hill in three stripes' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Delete', exact: true }).click();
    await expect(entry).toHaveCount(0);
    // It is kept for a while, and comes back with all that was done.
    await page.getByText(/deleted canvas(es)?, kept for 30 days/).click();
    await page.getByRole('button', { name: 'Bring back Hill in three stripes' }).click();
    await expect(entry).toContainText('12.76 %');
  });
});
