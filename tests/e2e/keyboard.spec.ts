import type { Page } from '@playwright/test';
import { allSaved, cloth, expect, shelve, test } from './bench';

/** Presses a key of a Cyrillic keyboard, named by the Latin letter on it. */
async function pressCyrillic(page: Page, key: string, letter: string, withCtrl = false) {
  const session = await page.context().newCDPSession(page);
  const what = {
    key,
    code: `Key${letter}`,
    windowsVirtualKeyCode: letter.charCodeAt(0),
    modifiers: withCtrl ? 2 : 0,
  };
  await session.send('Input.dispatchKeyEvent', { type: 'rawKeyDown', ...what });
  await session.send('Input.dispatchKeyEvent', { type: 'keyUp', ...what });
  await session.detach();
}

test.describe('by keyboard alone', () => {
  test('the list of keys opens with a question mark, but not inside a field', async ({ page, request }) => {
    const id = await shelve(request, 'Keys');
    await page.goto(`/canvas/${id}/checkin`);
    await expect(page.getByLabel('Code on this bag')).toBeFocused();
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeHidden();
    await page.getByRole('button', { name: 'Keys' }).focus();
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeHidden();
  });

  test('the chart moves, zooms and tells the cell', async ({ page, request }) => {
    const id = await shelve(request, 'Chart by keys');
    await page.goto(`/canvas/${id}/chart`);
    await cloth(page).focus();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByTestId('readout')).toContainText('Column 14, row 9');
    for (const key of ['ArrowUp', '+', '+', 'Shift+ArrowLeft', '-', '0']) await page.keyboard.press(key);
    await expect(page.getByTestId('readout')).toContainText('Column 14, row 8');
    await expect(page.getByTestId('readout')).toContainText('412');
    for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowRight');
    await expect(page.getByTestId('readout')).toContainText('Column 24');
  });

  test('drills are laid, all of a colour is laid, and undone', async ({ page, request }) => {
    const id = await shelve(request, 'Bench by keys');
    await page.goto(`/canvas/${id}/bench?section=1`);
    await cloth(page).focus();
    await expect(page.getByTestId('left-here')).toHaveText('160 left here of 160');
    for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowUp');
    await page.keyboard.press('Space');
    await expect(page.getByTestId('left-here')).toHaveText('159 left here of 160');
    await allSaved(page);
    // From the middle of the section, 20 × 16 cells, four rows up: column 11, row 5 and nothing else.
    const bitmap = await (await request.get(`/api/canvases/${id}/bitmap`)).body();
    const laid = Array.from({ length: 24 * 16 }, (_, cell) => cell).filter(
      (cell) => bitmap[cell >> 3]! & (1 << (cell & 7)),
    );
    expect(laid).toEqual([4 * 24 + 10]);
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('Space');
    await expect(page.getByTestId('left-here')).toHaveText('158 left here of 160');
    // A laid square stays laid until it is to be lifted, also while the key is held down.
    await page.keyboard.down('Space');
    await page.keyboard.down('Space');
    await page.keyboard.up('Space');
    await expect(page.getByTestId('left-here')).toHaveText('158 left here of 160');
    await expect(page.getByText('This square is laid already.')).toBeVisible();
    await page.keyboard.press('l');
    await page.keyboard.press('Space');
    await expect(page.getByTestId('left-here')).toHaveText('159 left here of 160');
    await page.keyboard.press('l');
    await page.keyboard.press('n');
    await expect(page.getByTestId('left-here')).toHaveText('80 left here of 80');
    // Held down it lays one colour and brings the next, and of that one it lays nothing.
    const front = page.getByRole('region', { name: 'The colour in front' }).getByRole('heading').first();
    const second = await front.textContent();
    await page.keyboard.down('a');
    for (let repeat = 0; repeat < 5; repeat++) await page.keyboard.down('a');
    await page.keyboard.up('a');
    await expect(front).not.toHaveText(second!);
    await expect(page.getByTestId('left-here')).toHaveText('80 left here of 80');
    await expect(page.getByTestId('laid-in-all')).toHaveText('81 of 376 laid, 21.54 %');
    await allSaved(page);
    // What is taken back comes to the front again.
    await page.keyboard.press('Control+z');
    await expect(front).toHaveText(second!);
    await expect(page.getByTestId('left-here')).toHaveText('80 left here of 80');
    await allSaved(page);
    await page.keyboard.press('Control+y');
    await expect(page.getByTestId('left-here')).toHaveText('0 left here of 80');
    await page.keyboard.press('t');
    await expect(page.getByRole('timer')).toBeVisible();
    await page.keyboard.press('t');
    await expect(page.getByRole('timer')).toBeHidden();
  });

  test('a bag is picked from the wall, and its code lands in the field', async ({ page, request }) => {
    const id = await shelve(request, 'Wall by keys');
    await page.goto(`/canvas/${id}/checkin`);
    await page.getByRole('button', { name: /1204/ }).focus();
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Code on this bag')).toBeFocused();
    await expect(page.getByLabel('Code on this bag')).toHaveValue('1204');
    await page.keyboard.press('Enter');
    await expect(page.getByText('200 here of 90 needed; bag 1 of 2')).toBeVisible();
  });

  test('sections are chosen with the arrows', async ({ page, request }) => {
    const id = await shelve(request, 'Sections by keys');
    await page.goto(`/canvas/${id}/sections`);
    await cloth(page).focus();
    await expect(page.getByText('Section 1 of 2')).toBeVisible();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByText('Section 2 of 2')).toBeVisible();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByText('Section 2 of 2')).toBeVisible();
  });

  test('keyboards of other scripts do the same', async ({ page, request }) => {
    const id = await shelve(request, 'Other scripts');
    await page.goto(`/canvas/${id}/bench?section=1`);
    const left = page.getByTestId('left-here');
    await expect(left).toHaveText('160 left here of 160');
    await pressCyrillic(page, 'т', 'N');
    await expect(left).toHaveText('80 left here of 80');
    await pressCyrillic(page, 'з', 'P');
    await expect(left).toHaveText('160 left here of 160');
    await pressCyrillic(page, 'ф', 'A');
    const laid = async () => (await (await request.get(`/api/canvases/${id}`)).json()).laid;
    await expect.poll(laid).toBe(160);
    await pressCyrillic(page, 'я', 'Z', true);
    await expect.poll(laid).toBe(0);
    await allSaved(page);

    // While a sign is composed Enter chooses it, and does not go on to the next cell.
    await page.goto(`/canvas/${id}/checkin/sheet`);
    await page.getByRole('button', { name: 'Correct the list' }).click();
    const code = page.getByLabel(/^Code, row 1\b/);
    await code.fill('');
    await code.focus();
    const session = await page.context().newCDPSession(page);
    await session.send('Input.imeSetComposition', { text: '４１', selectionStart: 2, selectionEnd: 2 });
    await page.keyboard.press('Enter');
    await expect(code).toBeFocused();
    await session.send('Input.insertText', { text: '４１２' });
    await expect(code).toHaveValue('４１２');
    await page.keyboard.press('Enter');
    await expect(code).not.toBeFocused();
  });
});
