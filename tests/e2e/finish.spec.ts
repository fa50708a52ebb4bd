import { readFile } from 'node:fs/promises';
import { DEMO, expect, shelve, test } from './bench';

test('progress foretells a range, takes a wished day, and hands its days and its week out', async ({
  page,
  request,
}) => {
  const base = `/api/canvases/${DEMO.kingfisher}`;
  await page.goto(`/canvas/${DEMO.kingfisher}/progress`);
  const forecast = page.getByTestId('forecast');
  await expect(forecast).toContainText('Four times in five between');
  const day = new Date(Date.now() + 200 * 86_400_000).toISOString().slice(0, 10);
  const told = page.waitForResponse((answer) => answer.url().includes('/progress-wish') && answer.ok());
  await forecast.getByLabel('I would like it done by').fill(day);
  await told;
  await expect(forecast).toContainText(/It takes .+ a week; as things go, the chance is/);
  await page.reload();
  await expect(forecast.getByLabel('I would like it done by')).toHaveValue(day);
  await forecast.getByLabel('I would like it done by').fill('2020-01-01');
  await expect(forecast).toContainText('That day has passed');
  await forecast.getByLabel('I would like it done by').fill('');
  await forecast.getByLabel('I would like it done by').blur();
  await expect(forecast).not.toContainText('passed');
  const csv = await (await request.get(`${base}/days.csv?zone=UTC`)).text();
  const sum = csv
    .trim()
    .split(/\r?\n/)
    .slice(1)
    .reduce((all, row) => all + Number(row.split(',')[1]), 0);
  const { laid } = await (await request.get(base)).json();
  expect(sum).toBe(laid);
  expect((await (await request.get(`${base}/week.pdf`)).body()).subarray(0, 5).toString()).toBe('%PDF-');
  expect(await (await request.get(`${base}/calendar.ics`)).text()).toContain('BEGIN:VCALENDAR');
});

test('the picture of a past day, and the film of all days', async ({ page }) => {
  await page.goto(`/canvas/${DEMO.kingfisher}/progress`);
  await page.getByRole('button', { name: 'Picture' }).click();
  const past = page.getByTestId('past');
  await expect(past).toContainText('41.11 %');
  const slider = page.getByRole('slider', { name: 'Day' });
  await slider.focus();
  await page.keyboard.press('Home');
  await expect(past).not.toContainText('41.11 %');
  const first = Number(/: ([\d,]+) laid/.exec((await past.textContent())!)![1]!.replace(',', ''));
  await page.keyboard.press('ArrowRight');
  await expect(past).not.toContainText(`: ${first.toLocaleString('en')} laid`);
  const [film] = await Promise.all([
    page.waitForEvent('download', { timeout: 60_000 }),
    page.getByRole('button', { name: 'Make a film' }).click(),
  ]);
  const bytes = await readFile((await film.path())!);
  if (film.suggestedFilename().endsWith('.webm')) {
    // EBML, as WebM begins (RFC 8794).
    expect(bytes.subarray(0, 4).toString('hex')).toBe('1a45dfa3');
  } else expect(bytes.subarray(0, 2).toString()).toBe('PK');
  expect(bytes.length).toBeGreaterThan(2000);
});

test('a photo is added by its day, removed and brought back', async ({ page, request }) => {
  const id = await shelve(request, 'Photos');
  await page.goto(`/canvas/${id}/progress`);
  await page.getByRole('button', { name: 'Picture' }).click();
  const png = await (await request.get(`/api/canvases/${id}/picture.png`)).body();
  await page.getByLabel('Note', { exact: true }).fill('First row');
  await page
    .locator('input[type=file]')
    .last()
    .setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: png });
  await expect(page.getByRole('img', { name: 'First row' })).toBeVisible();
  await page
    .locator('input[type=file]')
    .last()
    .setInputFiles({ name: 'IMG.HEIC', mimeType: 'image/heic', buffer: png });
  await expect(page.getByRole('alert')).toContainText('HEIC photo');
  await page.getByRole('button', { name: /^Remove the photo/ }).click();
  await expect(page.getByRole('img', { name: 'First row' })).toHaveCount(0);
  await page.getByText('1 removed photo').click();
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByRole('img', { name: 'First row' })).toBeVisible();
});

test('a sitting is entered by hand, split, and two that overlap are told', async ({ page, request }) => {
  const id = await shelve(request, 'By hand');
  await page.goto(`/canvas/${id}/progress`);
  await page.getByRole('button', { name: 'Sittings' }).click();
  const enter = async (from: string, to: string) => {
    await page.getByRole('button', { name: 'Enter one by hand' }).click();
    const form = page.getByRole('form', { name: 'Enter a sitting' });
    await form.getByLabel('Began').fill(from);
    await form.getByLabel('Ended').fill(to);
    await form.getByRole('button', { name: 'Save' }).click();
    return form;
  };
  // Key by key a year has four figures, and the time comes after it.
  await page.getByRole('button', { name: 'Enter one by hand' }).click();
  const typed = page.getByRole('form', { name: 'Enter a sitting' });
  await typed.getByLabel('Began').pressSequentially('030120260800PM');
  await typed.getByLabel('Ended').pressSequentially('030120261000PM');
  await expect(typed.getByLabel('Began')).toHaveValue('2026-03-01T20:00');
  await typed.getByRole('button', { name: 'Save' }).click();
  await expect(typed).toHaveCount(0);
  await expect(await enter('2026-03-01T21:30', '2026-03-01T23:00')).toHaveCount(0);
  await expect(page.getByText('Two sittings lie over one another')).toBeVisible();
  await expect(await enter('2026-03-01T21:30', '2026-03-01T20:00')).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('must end after it begins');
  await page.getByRole('form', { name: 'Enter a sitting' }).getByRole('button', { name: 'Cancel' }).click();
  await page
    .getByRole('button', { name: /^Split the sitting of/ })
    .last()
    .click();
  const split = page.getByRole('form', { name: 'Split a sitting' });
  await split.getByLabel('The pause began').fill('2026-03-01T20:30');
  await split.getByLabel('The pause ended').fill('2026-03-01T21:00');
  await split.getByRole('button', { name: 'Split' }).click();
  await expect(split).toHaveCount(0);
  await expect(page.getByRole('row')).toHaveCount(4);
});

test('on a canvas far from done bare squares are counted by section, and not ringed over each other', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Hardly begun');
  await page.goto(`/canvas/${id}/finish`);
  const squares = page.getByRole('region', { name: 'Squares that want a look' });
  // 24 × 16 squares less the bare corner of 4 × 2: few enough to be ringed and listed.
  await expect(squares.getByRole('button', { name: 'Bare: 376' })).toBeVisible();
  await expect(squares.getByRole('button', { name: 'Column 1, row 1 412' })).toBeVisible();
  await expect(squares).not.toContainText('too many');
  const { drills, laid } = await (await request.get(`/api/canvases/${DEMO.kingfisher}`)).json();
  expect(drills - laid).toBeGreaterThan(400);
  await page.goto(`/canvas/${DEMO.kingfisher}/finish`);
  await squares.getByRole('button', { name: /^Bare/ }).click();
  await expect(squares).toContainText(
    `${(drills - laid).toLocaleString('en')} squares are too many to ring one by one. The sections below say where they lie.`,
  );
  await expect(squares.getByRole('link', { name: /^Section/ }).first()).toBeVisible();
  await expect(squares.getByRole('button', { name: /^Column/ })).toHaveCount(0);
});

test('the last walk, the frame, the log page and the leftovers, to the stash and back', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Nearly done');
  for (const line of [1, 2, 3])
    await request.post(`/api/canvases/${id}/bags`, { data: { id: crypto.randomUUID(), line } });
  await request.post(`/api/canvases/${id}/marks`, {
    data: { id: crypto.randomUUID(), kind: 'lay', runs: [0, 380] },
  });
  await request.post(`/api/canvases/${id}/marks`, {
    data: { id: crypto.randomUUID(), kind: 'lift', runs: [50, 2], popped: true },
  });
  await page.goto(`/canvas/${id}/finish`);
  await expect(page.getByText('2 squares want a look: 2 popped')).toBeVisible();
  await page.getByRole('button', { name: 'Column 3, row 3 412' }).click();
  await expect(page.getByTestId('square')).toContainText('Column 3, row 3: symbol A, 412 Moss, not laid');
  await page.getByLabel(/^Look for gaps/).check();
  await expect(page.getByText('1 step of the last walk done')).toBeVisible();
  await request.post(`/api/canvases/${id}/marks`, {
    data: { id: crypto.randomUUID(), kind: 'lay', runs: [50, 2] },
  });
  await expect(page.getByText('Every square is laid and nothing is in doubt.')).toBeVisible();
  await page.getByRole('button', { name: 'Seal and frame' }).click();
  await expect(page.getByText('The label of the product comes first')).toBeVisible();
  await page.getByLabel('Sealed').selectOption('yes');
  await page.getByRole('button', { name: 'Log page' }).click();
  const notes = page.getByLabel('Notes');
  await notes.pressSequentially('A gift');
  await expect(page.getByText('The notes are not saved yet.')).toBeVisible();
  // Another screen writes too, and neither is lost.
  await request.patch(`/api/canvases/${id}/finish`, {
    data: { id: crypto.randomUUID(), notes: 'Blue frame' },
  });
  const log = page.getByTestId('log-page');
  await expect(log).toContainText('Blue frame');
  await expect(notes).toHaveValue('A gift');
  await page.getByRole('button', { name: 'Keep both' }).click();
  await expect(notes).toHaveValue('Blue frame\nA gift');
  await expect(log).toContainText('A gift');
  await expect(page.getByText('All saved.')).toBeVisible();
  await expect(log).toContainText('376 drills, square');
  await expect(log).toContainText('Sealed');
  await page.getByRole('button', { name: 'Leftovers' }).click();
  const put = page.getByRole('button', { name: 'Put 3 colours into the stash' });
  const left = page.getByLabel('Leftover of 98');
  // Emptied, it holds all of them back; Enter in it puts nothing away.
  await left.press('End');
  for (let i = 0; i < 4; i++) await left.press('Backspace');
  await put.click();
  await expect(left).toBeFocused();
  await left.fill('77');
  await left.press('Enter');
  await expect(put).toBeEnabled();
  await put.click();
  await expect(page.getByText('3 colours put into the stash; their pots are free.')).toBeVisible();
  const stash = async () =>
    (await (await request.get('/api/stash')).json()).items.filter(
      (item: { code: string; drills: number }) => item.code === '98' && item.drills === 77,
    ).length;
  expect(await stash()).toBe(1);
  await page.getByRole('link', { name: 'Print labels for the bags' }).click();
  await expect(page.getByText('3 labels')).toBeVisible();
  await expect(page.getByRole('combobox', { name: /^For/ })).toHaveValue('leftovers');
  const sheet = await page.getByRole('link', { name: 'Download this sheet (SVG)' }).getAttribute('href');
  expect(await (await request.get(sheet!)).text()).toContain('77 drills left');
  await page.goBack();
  await page.getByRole('button', { name: 'Leftovers' }).click();
  // What was put away can be taken back later too, one colour or all.
  await page.getByRole('button', { name: 'Undo: 98 comes back out of the stash' }).click();
  await expect(page.getByRole('button', { name: 'Put 1 colour into the stash' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo all 2 colours' }).click();
  await expect(put).toBeVisible();
  expect(await stash()).toBe(0);
  await page.goto('/log');
  await page.getByLabel('Find by title, notes, year or shape').fill('gift');
  await expect(page.getByRole('row', { name: /Nearly done/ })).toBeVisible();
  expect(await (await request.get('/api/log.csv?zone=UTC')).text()).toContain('Nearly done');
  expect((await (await request.get(`/api/canvases/${id}/log.pdf`)).body()).subarray(0, 5).toString()).toBe(
    '%PDF-',
  );
});
