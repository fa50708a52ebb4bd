import type { Locator, Page } from '@playwright/test';
import { allSaved, cloth, expect, left, openBench, shelve, test } from './bench';

/** What a browser's translator puts before the words of a text here, in place of another language. */
const MARK = '¶';

/**
 * Translates the page as browsers do: another node with other words stands where each text was, and where new texts
 * come, until the page is left.
 */
async function translate(page: Page): Promise<void> {
  await page.evaluate((mark) => {
    const translated = (text: Text) => text.data.startsWith(mark) || text.data.trim() === '';
    const kept = (text: Text) =>
      text.parentElement?.closest('script, style, textarea, [translate=no]') != null;
    const below = (root: Node) => {
      const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
      const texts: Text[] = [];
      while (walker.nextNode()) texts.push(walker.currentNode as Text);
      for (const text of texts) {
        if (translated(text) || kept(text)) continue;
        const font = document.createElement('font');
        font.append(document.createElement('font'));
        font.firstElementChild!.append(mark + text.data);
        text.replaceWith(font);
      }
    };
    below(document.body);
    new MutationObserver(() => below(document.body)).observe(document.body, {
      childList: true,
      subtree: true,
      characterData: true,
    });
  }, MARK);
}

/** The words of a place as they were before they were translated. */
const words = async (place: Locator) =>
  ((await place.textContent()) ?? '').replaceAll(MARK, '').replaceAll(/\s+/g, ' ').trim();
const bag = (page: Page, name: string) => page.locator(`li:has(> button[title="${name}"])`);

test('at the heap a page that the browser translates counts on, and codes stay codes', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Translated');
  await page.goto(`/canvas/${id}/checkin`);
  const field = page.locator('#bag');
  await expect(field).toBeFocused();
  await translate(page);
  await expect(page.locator('h1')).toContainText(MARK);
  for (const typed of ['412', '98', '1204', '1204', '77']) {
    await field.fill(typed);
    await field.press('Enter');
    await expect(field).toHaveValue('');
  }
  const plain = await page.context().newPage();
  await plain.goto(page.url());
  for (const [name, told] of [
    ['Moss', '1/1'],
    ['Dusk', '1/1'],
    ['Straw', '2/2'],
  ] as const) {
    await expect(bag(plain, name)).toContainText(told);
    await expect.poll(() => words(bag(page, name))).toContain(await words(bag(plain, name)));
  }
  const sentence = (of: Page) => words(of.getByTestId('sentence'));
  expect(await sentence(page)).toBe(await sentence(plain));
  await expect(bag(page, 'Moss')).toContainText(`412${MARK}1`);
  await field.fill('');
  // The bag of an unknown colour goes, and then one of those that are known.
  for (const told of ['2/2', '1/2']) {
    await page.keyboard.press('Control+z');
    await expect.poll(() => words(bag(page, 'Straw'))).toContain(told);
  }
  await expect(bag(plain, 'Straw')).toContainText('1/2');
});

test('at the bench a translated page marks on, colour after colour, and back', async ({ page, request }) => {
  const id = await shelve(request, 'Translated bench');
  await openBench(page, id);
  await expect(page.getByTestId('guide')).toContainText('Placement 1 of');
  await translate(page);
  const leftHere = () => words(left(page));
  expect(await leftHere()).toBe('160 left here of 160');
  await cloth(page).focus();
  const seen = [160];
  for (let bar = 1; bar <= 3; bar++) {
    await page.keyboard.press('Enter');
    await expect.poll(leftHere).not.toBe(`${seen.at(-1)} left here of 160`);
    seen.push(Number.parseInt(await leftHere(), 10));
  }
  await allSaved(page);
  const record = await (await request.get(`/api/canvases/${id}`)).json();
  expect(160 - seen.at(-1)!).toBe(record.laid);
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { level: 2, name: '98' })).toBeVisible();
  await page.keyboard.press('p');
  await expect.poll(leftHere).toBe(`${seen[3]} left here of 160`);
  await page.keyboard.press('Control+z');
  await expect.poll(leftHere).toBe(`${seen[2]} left here of 160`);
});
