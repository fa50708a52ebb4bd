import { chartPng, expect, lineAt, shelve, test } from './bench';

test.describe('bad input', () => {
  test('a sheet with faulty lines names them, keeps the good ones and saves nothing by itself', async ({
    page,
    request,
  }) => {
    const id = await shelve(request, 'Bad sheet', false);
    await page.goto(`/canvas/${id}/checkin/sheet`);
    await page.getByRole('button', { name: 'Read a file' }).click();
    await page
      .getByLabel('Or paste the rows here')
      .fill('code;drills;hex\n412;190;\n98;many;\n1204;90;mauvish\n77;5;#fff\n');
    await expect(page.getByText('Row 3: The number of drills needed is “many”')).toBeVisible();
    await expect(page.getByText('Row 4: “mauvish” is no colour')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Save the 2 good rows' })).toBeEnabled();
    const before = await (await request.get(`/api/canvases/${id}/sheet`)).json();
    expect(before.lines.map((line: { code: string }) => line.code)).toEqual(['412', '98', '1204']);
    await page.getByRole('button', { name: 'Save the 2 good rows' }).click();
    await page.waitForURL(/chart\/read$/);
    const after = await (await request.get(`/api/canvases/${id}/sheet`)).json();
    expect(after.lines.map((line: { code: string }) => line.code)).toEqual(['412', '77']);
  });

  test('a sheet without header names waits for its columns', async ({ page, request }) => {
    const id = await shelve(request, 'No header', false);
    await page.goto(`/canvas/${id}/checkin/sheet`);
    await page.getByRole('button', { name: 'Read a file' }).click();
    await page.getByLabel('Or paste the rows here').fill('412\t190\n98\t96');
    await expect(page.getByText('No row has headings that we know')).toBeVisible();
    await page.getByLabel('Colour code').selectOption('Column 1');
    await page.getByLabel('Drills needed').selectOption('Column 2');
    await expect(page.getByText('286 drills needed')).toBeVisible();
  });

  test('a sheet file that is no text is refused in words', async ({ page, request }) => {
    const id = await shelve(request, 'Binary sheet', false);
    await page.goto(`/canvas/${id}/checkin/sheet`);
    await page.getByRole('button', { name: 'Read a file' }).click();
    await page
      .getByLabel('Choose a file')
      .setInputFiles({ name: 'sheet.csv', mimeType: 'text/csv', buffer: Buffer.from([1, 0, 2, 0]) });
    await expect(page.getByRole('alert')).toContainText('This is not a text file');
  });

  test('a bad picture is refused in words', async ({ page, request }) => {
    const id = await shelve(request, 'Bad chart', false);
    await page.goto(`/canvas/${id}/chart/read`);
    const offer = (name: string, buffer: Buffer, mimeType = 'image/png') =>
      page.getByLabel('Choose a file').setInputFiles({ name, mimeType, buffer });
    await offer('note.png', Buffer.from('hello'));
    await expect(page.getByRole('alert')).toContainText('This file is no picture that we know');
    await offer('half.png', chartPng().subarray(0, 70));
    await expect(page.getByRole('alert')).toContainText('damaged');
    await offer('grid.csv', Buffer.from('A,A\nA,A'), 'text/csv');
    await expect(page.getByRole('alert')).toContainText('The grid has 2 rows; the canvas has 16.');
    expect((await request.get(`/api/canvases/${id}/chart`)).status()).toBe(404);
  });

  test('a picture of the wrong size says both sizes', async ({ request }) => {
    const id = await shelve(request, 'Wrong size', false);
    const small = await request.get(`/api/canvases/6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f01/picture.png`);
    const answer = await request.put(`/api/canvases/${id}/chart`, {
      data: await small.body(),
      headers: { 'content-type': 'image/png' },
    });
    expect(answer.status()).toBe(422);
    expect((await answer.json()).detail).toContain('120 × 160 pixels, but the canvas is 24 × 16 squares');
  });

  test('colours of no line are listed with their count, and left bare only when the user says so', async ({
    page,
    request,
  }) => {
    const id = await shelve(request, 'Strange colours', false);
    const strange = chartPng((x, y) => (y === 0 ? '#ff00ff' : lineAt(x, y) === 0 ? null : '#4a7c3f'));
    const refused = await request.put(`/api/canvases/${id}/chart`, {
      data: strange,
      headers: { 'content-type': 'image/png' },
    });
    expect(refused.status()).toBe(422);
    expect((await refused.json()).detail).toContain('#ff00ff');
    await page.goto(`/canvas/${id}/chart/read`);
    await page
      .getByLabel('Choose a file')
      .setInputFiles({ name: 'c.png', mimeType: 'image/png', buffer: strange });
    await expect(page.getByText('#ff00ff: 24 squares')).toBeVisible();
    await page.getByRole('button', { name: 'Save, and leave those squares bare' }).click();
    await page.waitForURL(/checkin$/);
    const entry = await (await request.get(`/api/canvases/${id}`)).json();
    expect(entry.drills).toBe(24 * 16 - 24 - 8);
  });

  test('a grid of symbols is read as well as a picture', async ({ request }) => {
    const id = await shelve(request, 'Grid', false);
    const symbols = ['', 'A', '★', '0'];
    const grid = Array.from({ length: 16 }, (_, y) =>
      Array.from({ length: 24 }, (_, x) => symbols[lineAt(x, y)]).join(';'),
    ).join('\n');
    const put = await request.put(`/api/canvases/${id}/chart`, {
      data: grid,
      headers: { 'content-type': 'text/csv' },
    });
    expect(put.ok()).toBe(true);
    const bytes = await (await request.get(`/api/canvases/${id}/chart`)).body();
    const cells = Array.from({ length: 24 * 16 }, (_, i) => bytes.readUInt16LE(i * 2));
    expect(cells).toEqual(Array.from({ length: 24 * 16 }, (_, i) => lineAt(i % 24, Math.floor(i / 24))));
  });

  test('a new canvas with nonsense says what is wrong beside each field', async ({ page }) => {
    await page.goto('/new');
    await page.getByLabel('Height').fill('-3');
    await page.getByLabel('Pitch, mm').fill('0');
    await page.getByLabel('Drills in an ordinary bag').fill('0');
    await page.getByRole('button', { name: 'Put it on the shelf' }).click();
    for (const words of [
      'Give the canvas a title.',
      'Give the width as a number of squares.',
      'The height must be at least 1 square.',
      'The pitch must be between 1 and 10 mm.',
      'A bag must hold at least one drill.',
    ]) {
      await expect(page.getByText(words)).toBeVisible();
    }
    expect(page.url()).toContain('/new');
  });

  test('absurd bags are refused and the ledger stays right', async ({ request }) => {
    const id = await shelve(request, 'Absurd bags');
    for (const drills of [0, -5, 1.5, 1e9, 'many']) {
      const answer = await request.post(`/api/canvases/${id}/bags`, {
        data: { id: crypto.randomUUID(), line: 1, drills },
      });
      expect(answer.status()).toBe(422);
      expect((await answer.json()).detail).toMatch(/drills|bag/i);
    }
    expect((await (await request.get(`/api/canvases/${id}/bags`)).json()).bags).toEqual([]);
  });

  test('an address of nothing says so, as a page and as a problem', async ({ page, request }) => {
    await page.goto('/canvas/6f1d2a8e-0000-4b59-9d10-5a7e2b9c4f01/bench');
    await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
    await page.goto('/canvas/nonsense/chart');
    await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
    for (const path of [
      '/api/canvases/nonsense',
      '/api/canvases/6f1d2a8e-0000-4b59-9d10-5a7e2b9c4f01/bags',
      '/api/nothing',
    ]) {
      const answer = await request.get(path);
      expect(answer.status()).toBe(404);
      expect(answer.headers()['content-type']).toBe('application/problem+json');
    }
  });

  test('a file that cannot be had is a page in words, with the way back', async ({ page, request }) => {
    const id = await shelve(request, 'Gone while it was open');
    await page.goto(`/canvas/${id}/kitup/labels`);
    const print = page.getByRole('link', { name: 'Print (PDF)' });
    await print.waitFor();
    expect((await request.delete(`/api/canvases/${id}`)).ok()).toBe(true);
    await print.click();
    await expect(page.getByRole('alert')).toHaveText('There is no canvas here. It may have been deleted.');
    await page.getByRole('link', { name: 'Back to where you were' }).click();
    await expect(page).toHaveURL(`/canvas/${id}/kitup/labels`);
  });
});

test('a page says what it needs where JavaScript is switched off', async ({ request }) => {
  const html = await (await request.get('/')).text();
  expect(/<noscript>(.*?)<\/noscript>/s.exec(html)?.[1]).toContain('Allow it in the browser’s settings');
});

test('a canvas without a chart is checked in, kitted up and laid by area', async ({ page, request }) => {
  const id = await shelve(request, 'No chart', false);
  await page.goto(`/canvas/${id}/kitup`);
  await expect(page.getByText('3 colours')).toBeVisible();
  await page.goto(`/canvas/${id}/chart`);
  await expect(page.getByText('This canvas has no chart yet.')).toBeVisible();
  await page.goto(`/canvas/${id}/placing`);
  await expect(page.getByRole('link', { name: 'Read a chart' })).toBeVisible();
  await page.goto(`/canvas/${id}/sections`);
  await page.getByRole('link', { name: 'Lay this section' }).click();
  await expect(page.getByText('nothing is known of single squares')).toBeVisible();
  const colours = page.getByRole('region', { name: 'Colours done in this section' });
  await colours.getByRole('checkbox', { name: /412/ }).check();
  await expect(colours.getByText('1 of 3 colours done in section 1')).toBeVisible();
  await expect(colours.getByText('pot 2')).toBeVisible();
  await page.getByRole('button', { name: 'Section laid' }).click();
  await expect(page.getByTestId('saved')).toContainText('Every mark is saved.');
  await page.getByRole('link', { name: 'Progress' }).click();
  // Section 1 of the usual 20 × 20 is 20 × 16 here: 320 of 384.
  await expect(page.getByText('83.33 %').last()).toBeVisible();
  await page.getByRole('button', { name: 'Colours', exact: true }).click();
  await expect(
    page.getByRole('table', { name: 'Done per colour' }).getByRole('row', { name: /412/ }),
  ).toContainText('83.33 %');
});
