import type { APIRequestContext } from '@playwright/test';
import { cloth, expect, shelve, test } from './bench';

const listOf = async (request: APIRequestContext, id: string): Promise<{ code: string; line: number }[]> =>
  (await (await request.get(`/api/canvases/${id}/sheet`)).json()).lines;

test('forty colours are typed by keyboard alone, and one code is corrected after 120 bags and 150 marks', async ({
  page,
  request,
}) => {
  test.setTimeout(240_000);
  const id = crypto.randomUUID();
  const data = { id, title: 'Typed', shape: 'square', pitchMm: 2.5, width: 50, height: 40 };
  expect((await request.post('/api/canvases', { data })).status()).toBe(201);
  const other = await shelve(request, 'Beside');
  await page.goto(`/canvas/${id}/checkin/sheet`);
  await page.getByRole('button', { name: 'Type it in' }).focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('Key, row 1', { exact: true }).focus();
  const colours = Array.from({ length: 40 }, (_, i) => ({
    key: String(i + 1),
    symbol: String.fromCodePoint(0x41 + i),
    code: String(300 + 7 * i),
    name: `Colour ${i + 1}`,
    hex: i === 0 ? 'dark sea green' : '',
    drills: '50',
    bags: '5',
  }));
  for (const { key, symbol, code, name, hex, drills, bags } of colours) {
    for (const text of [key, symbol, code, name, hex, '', drills, bags]) {
      if (text !== '') await page.keyboard.insertText(text);
      await page.keyboard.press('Enter');
    }
  }
  // Nothing is lost by a reload in the midst of it.
  await page.reload();
  await page.getByRole('button', { name: 'Type it in' }).click();
  await expect(page.getByText('2,000 drills, 200 bags')).toBeVisible();
  await page.getByRole('button', { name: 'Save 40 colours' }).focus();
  await page.keyboard.press('Enter');
  await page.waitForURL(/chart\/read$/);
  const list = await listOf(request, id);
  expect(list.map(({ code }) => code)).toEqual(colours.map(({ code }) => code));
  expect(list[0]).toMatchObject({ line: 1, hex: '#8fbc8f', symbol: 'A', neededDrills: 50, packets: 5 });

  const rows = Array.from({ length: 40 }, (_, y) =>
    Array.from({ length: 50 }, () => colours[y]!.code).join(','),
  );
  const put = await request.put(`/api/canvases/${id}/chart`, {
    data: rows.join('\n'),
    headers: { 'content-type': 'text/csv' },
  });
  expect(put.ok()).toBe(true);
  // Elsewhere, so that this page does not follow each of them.
  await page.goto('/glossary');
  const inTens = async (count: number, send: (n: number) => Promise<unknown>) => {
    for (let from = 0; from < count; from += 10)
      await Promise.all(Array.from({ length: 10 }, (_, i) => send(from + i)));
  };
  await inTens(120, async (bag) => {
    const answer = await request.post(`/api/canvases/${id}/bags`, {
      data: { id: crypto.randomUUID(), line: (bag % 40) + 1 },
    });
    expect(answer.status()).toBe(201);
  });
  await inTens(150, (mark) =>
    request.post(`/api/canvases/${id}/marks`, {
      data: { id: crypto.randomUUID(), kind: 'lay', runs: [mark, 1] },
    }),
  );
  await page.goto(`/canvas/${id}/checkin/sheet`);
  const cell = page.getByLabel('Code, row 3', { exact: true });
  await cell.fill('999');
  await page.getByRole('button', { name: 'Save 40 colours' }).click();
  await expect(page.getByText('Last: 314 is now 999')).toBeVisible();
  const { supply } = await (await request.get(`/api/canvases/${id}/bags`)).json();
  expect(supply[2]).toMatchObject({ line: 3, bags: 3, suppliedDrills: 600 });
  await page.goto(`/canvas/${id}/bench?section=1&colour=3`);
  await cloth(page).waitFor();
  await expect(page.getByText('999').first()).toBeVisible();
  expect((await (await request.get(`/api/canvases/${id}`)).json()).laid).toBe(150);
  // And back, with nothing else touched.
  await page.goto(`/canvas/${id}/checkin/sheet`);
  await page.getByRole('button', { name: 'Undo: 314 is now 999' }).click();
  await expect(cell).toHaveValue('314');
  expect((await listOf(request, other)).map(({ code }) => code)).toEqual(['412', '98', '1204']);
});

test('rows are inserted, moved, pasted and deleted; what is in use cannot go', async ({ page, request }) => {
  const id = await shelve(request, 'Rows');
  await page.goto(`/canvas/${id}/checkin/sheet`);
  await page.getByRole('button', { name: 'Move down: row 1, 412' }).click();
  await page.getByRole('button', { name: 'Insert a row below: row 2, 412' }).click();
  await page.getByLabel('Key, row 3', { exact: true }).focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', '8\tQ\t700\tNew\n9\tR\t800\tOver an old one');
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(page.getByLabel('Code, row 4', { exact: true })).toHaveValue('800');
  await page.getByRole('button', { name: 'Save 4 colours' }).click();
  await expect(page.getByRole('button', { name: 'All saved' })).toBeVisible();
  expect((await listOf(request, id)).map(({ code, line }) => [code, line])).toEqual([
    ['98', 2],
    ['412', 1],
    ['700', 4],
    ['800', 3],
  ]);
  await page.getByRole('button', { name: 'Delete: row 2, 412' }).click();
  await page.getByRole('button', { name: 'Save 3 colours' }).click();
  await expect(page.getByRole('alert')).toContainText(
    '412 has 192 squares of the chart, so it cannot be deleted',
  );
  await page.getByRole('button', { name: 'Cancel the changes' }).click();
  await expect(page.getByLabel('Code, row 2', { exact: true })).toHaveValue('412');
  // Two screens at once: the second is told, and loses nothing that it typed.
  const name = page.getByLabel('Name, row 1', { exact: true });
  await name.fill('Typed here');
  const { lines } = await (await request.get(`/api/canvases/${id}/sheet`)).json();
  lines[0].name = 'Saved there';
  expect((await request.put(`/api/canvases/${id}/sheet`, { data: { lines } })).ok()).toBe(true);
  await expect(page.getByText('changed at another screen after you began typing')).toBeVisible();
  await expect(name).toBeFocused();
  await page.getByRole('button', { name: 'Save 4 colours' }).click();
  await expect(page.getByRole('alert')).toContainText('changed at another screen since you opened it');
  await expect(name).toHaveValue('Typed here');
  await page.getByRole('button', { name: 'Cancel the changes' }).click();
  await expect(name).toHaveValue('Saved there');
  // With nothing typed here, what another screen saves is shown at once.
  lines[0].name = 'Saved again';
  expect((await request.put(`/api/canvases/${id}/sheet`, { data: { lines } })).ok()).toBe(true);
  await expect(name).toHaveValue('Saved again');
  await expect(page.getByRole('button', { name: 'All saved' })).toBeVisible();
});

test('title, size and bags of a canvas are corrected, with what it leads to said before', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Wrongly named');
  await page.goto(`/canvas/${id}/checkin/facts`);
  const cost = page.getByRole('region', { name: 'What it would change' });
  await page.getByLabel('Width, squares').fill('20');
  await expect(cost.getByRole('alert')).toContainText('56 of the squares that would go want a drill');
  await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled();
  await page.getByLabel('Width, squares').fill('30');
  await expect(cost).toContainText('The canvas becomes 30 × 16 squares');
  await page.getByLabel('Title').fill('Rightly named');
  await page.getByLabel('Drills in an ordinary bag').fill('500');
  await expect(cost).toContainText('Bags are counted with 500 drills from now on.');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'Rightly named' })).toBeVisible();
  expect((await (await request.get(`/api/canvases/${id}`)).json()).canvas).toMatchObject({
    title: 'Rightly named',
    width: 30,
    height: 16,
    packetDrills: 500,
  });
  await page.getByRole('button', { name: /^Undo: title: Wrongly named/ }).click();
  await expect(page.getByRole('heading', { name: 'Wrongly named' })).toBeVisible();
});
