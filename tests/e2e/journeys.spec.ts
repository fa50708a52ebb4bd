import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { PDFDocument } from 'pdf-lib';
import { PNG } from 'pngjs';
import { rgbToHex } from '../../src/core/colour/rgb';
import { words } from '../server/pdfReader';
import { allSaved, cloth, DEMO, expect, left, pointOf, shelve, test } from './bench';

/*
 * Journeys of people, told in the words on screen. The canvas of the tests has 24 × 16 squares in sections of 20 × 16 and
 * 4 × 16; its colours are 412 (rows 1 to 8), 98 (rows 9 to 12) and 1204 (rows 13 to 16, one corner bare).
 */

const square = (page: Page) => page.getByTestId('square');

test('a first kit without a chart: its list is typed, its bags are counted, and colours are ticked', async ({
  page,
}) => {
  await page.goto('/new');
  await page.getByLabel('Title').fill('Harbour at dusk');
  await page.getByLabel('Width').fill('6 cm');
  await page.getByLabel('Height').fill('1,6 in');
  await expect(page.getByText('24 × 16 squares, 384 in all')).toBeVisible();
  await page.getByRole('button', { name: 'Put it on the shelf, then read its colour list' }).click();
  await page.getByRole('button', { name: 'Read a file' }).click();
  await page.getByLabel('Or paste the rows here').fill('Code\tName\tDrills\n412\tMoss\t200\n98\tDusk\t184');
  await page.getByRole('button', { name: 'Save this colour list' }).click();
  await page.getByRole('link', { name: 'Go on without one' }).click();
  const field = page.getByLabel('Code on this bag');
  await field.fill('412');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^counted last: 412 .*Just/ })).toBeVisible();
  await page.getByRole('link', { name: 'Kit-up' }).click();
  await page.getByRole('button', { name: 'I need no cases' }).click();
  await expect(page.getByText('You work straight from the bags of this kit')).toBeVisible();
  await page.getByRole('link', { name: 'Bench' }).click();
  const colours = page.getByRole('region', { name: 'Colours done in this section' });
  await colours.getByRole('checkbox', { name: /98/ }).check();
  await expect(colours.getByText('1 of 2 colours done in section 1')).toBeVisible();
  await page.reload();
  await expect(colours.getByRole('checkbox', { name: /98/ })).toBeChecked();
  await expect(colours.getByRole('checkbox', { name: /412/ })).not.toBeChecked();
  await page.getByRole('link', { name: 'Progress' }).click();
  await page.getByRole('button', { name: 'Colours' }).click();
  await expect(page.getByRole('row', { name: /98/ })).toContainText('83.33 %');
});

test('a half-laid canvas: what was laid before is entered in a few acts, and counts for no day', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Half way');
  await page.goto(`/canvas/${id}/sections`);
  await page.getByRole('button', { name: 'Already begun' }).click();
  const whole = { x: 0, y: 0, width: 24, height: 16 };
  const first = await pointOf(page, whole, 3, 3);
  const second = await pointOf(page, whole, 22, 3);
  await page.mouse.click(second.x, second.y);
  await expect(page.getByText('drills in 1 section')).toBeVisible();
  await page.keyboard.down('Shift');
  await page.mouse.click(first.x, first.y);
  await page.keyboard.up('Shift');
  await expect(page.getByText('drills in 2 sections')).toBeVisible();
  await page.getByRole('button', { name: 'Choose none' }).click();
  await page.mouse.click(second.x, second.y);
  const list = page.getByRole('region', { name: 'Whole colours' });
  const listTop = () => list.evaluate((region: HTMLElement) => region.offsetTop);
  const top = await listTop();
  await page.getByRole('button', { name: 'Enter 1 section as laid' }).click();
  // 64 squares, of which 8 want no drill.
  await expect(page.getByText('56 drills entered as laid before.')).toBeVisible();
  // Colours to tick do not move away from under a hand when the answer comes.
  expect(await listTop()).toBe(top);
  await list.getByRole('checkbox', { name: /98/ }).check();
  await list.getByRole('button', { name: 'Enter 1 colour as laid, 80 drills' }).click();
  await expect(page.getByText('80 drills entered as laid before.')).toBeVisible();
  await expect(page.locator('#percent-laid')).toHaveText('36.17');
  await expect(page.getByTestId('saved-mark')).toHaveText('All saved');
  await page.getByRole('link', { name: 'Progress' }).click();
  await expect(page.getByText('36.17 %').last()).toBeVisible();
  const view = await (await request.get(`/api/canvases/${id}/progress`)).json();
  expect(view).toMatchObject({ laid: 136, laidToday: 0, laidBefore: 136 });
});

test.describe('half an hour at the bench by touch', () => {
  test.use({ hasTouch: true, viewport: { width: 820, height: 1180 } });

  test('on an upright tablet: six colours in reach, taps and a large act, then the next section', async ({
    page,
    request,
  }) => {
    const id = await shelve(request, 'By touch');
    await page.goto(`/canvas/${id}/bench?section=1`);
    await expect(left(page)).toHaveText('160 left here of 160');
    const list = page.getByRole('list', {
      name: 'Colours of this section, in the order in which they are laid',
    });
    expect((await list.boundingBox())!.y).toBeLessThan(1180 - 150);
    const spot = await pointOf(page, { x: 0, y: 0, width: 20, height: 16 }, 8, 3);
    await page.touchscreen.tap(spot.x, spot.y);
    await expect(left(page)).toHaveText('159 left here of 160');
    for (const code of ['412', '98', '1204']) {
      await list.getByRole('button', { name: new RegExp(`^\\W*(Key|Symbol|.)*${code}`) }).tap();
      await page.getByRole('button', { name: 'All of it laid' }).tap();
      await expect(page.getByText(new RegExp(`of ${code} laid\\.$`))).toBeVisible();
      await page.waitForTimeout(650);
    }
    await page.getByRole('button', { name: 'Section 1 is done; go on to 2' }).tap();
    await expect(page.getByRole('button', { name: /^Section 2 of 2/ })).toBeVisible();
    await allSaved(page);
  });
});

test('the same by keyboard and ear: what is in hand is said, and the focus is never lost', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'By ear');
  await page.goto(`/canvas/${id}/bench?section=1&colour=1`);
  await expect(left(page)).toHaveText('160 left here of 160');
  // Keys work wherever the focus is, outside of fields.
  await page.keyboard.press('ArrowUp');
  await expect(square(page)).toHaveText('Column 11, row 8: symbol A, 412 Moss, not laid, section 1');
  await page.keyboard.press('Space');
  await expect(square(page)).toHaveText('Column 11, row 8: symbol A, 412 Moss, laid, section 1');
  await page.keyboard.press('ArrowDown');
  await expect(square(page)).toHaveText('Column 11, row 9: symbol ★, 98 Dusk, not laid, section 1');
  const focused = () => page.evaluate(() => document.activeElement?.tagName ?? 'none');
  for (let colour = 0; colour < 3; colour++) {
    await page.getByRole('button', { name: 'All of it laid' }).focus();
    await page.keyboard.press('Enter');
    await expect.poll(focused).toBe('H2');
    await page.waitForTimeout(650);
  }
  const on = page.getByRole('button', { name: /go on to 2/ });
  await on.focus();
  await page.keyboard.press('Enter');
  await expect.poll(focused).toBe('H2');
  await expect(page.locator('h2:focus')).toHaveText(/^Section 2, colour 412/);
  // Keys go on from there.
  await page.keyboard.press('ArrowUp');
  await expect(square(page)).toContainText('section 2');
  await page.goto(`/canvas/${id}/placing?section=2`);
  await page.getByText('placements', { exact: false }).first().waitFor();
  await cloth(page).focus();
  await page.keyboard.press('ArrowDown');
  await expect(square(page)).toContainText('section 2');
});

test('a case of 64 pots is one stop for the Tab key, and arrow keys go from pot to pot', async ({ page }) => {
  await page.goto(`/canvas/${DEMO.kingfisher}/kitup`);
  const pots = page.locator('[data-slot]');
  await expect(pots.first()).toBeVisible();
  expect(await pots.count()).toBe(64);
  await expect(page.locator('[data-slot][tabindex="0"]')).toHaveCount(1);
  await page.locator('[data-slot][tabindex="0"]').focus();
  const focused = () => page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');
  await expect.poll(focused).toMatch(/^pot 1:/i);
  await page.keyboard.press('ArrowRight');
  await expect.poll(focused).toMatch(/^pot 2:/i);
  await page.keyboard.press('ArrowDown');
  await expect.poll(focused).toMatch(/^pot 10:/i);
  await expect(page.locator('[data-slot][tabindex="0"]')).toHaveCount(1);
});

test('long titles, names and codes without a gap, and 200 colours, push nothing out of sight', async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const [id, deleted, box] = [randomUUID(), randomUUID(), randomUUID()];
  const word = 'Unbreakable'.repeat(8).slice(0, 80);
  for (const each of [id, deleted]) {
    const data = { id: each, title: word, shape: 'round', pitchMm: 2.8, width: 40, height: 50 };
    expect((await request.post('/api/canvases', { data })).status()).toBe(201);
  }
  await request.delete(`/api/canvases/${deleted}`);
  const slots = [{ id: 's1', x: 0, y: 0, width: 1, height: 1, form: 'box' }];
  const tray = { columns: 1, rows: 1, unitWidthMm: 30, unitDepthMm: 30, heightMm: 24, wallMm: 1.5, slots };
  const kept = await request.put(`/api/storages/${box}`, {
    data: { id: box, name: word.slice(0, 60), packingShare: 0.55, trays: [tray] },
  });
  expect(kept.ok()).toBe(true);
  const lines = Array.from({ length: 200 }, (_, i) => ({
    keyNumber: String(i + 1),
    symbol: null,
    code: `AB-${1000 + i}-XYZ`,
    name: i % 2 === 0 ? word : 'Very pale and slightly greyish blue of early mornings',
    hex: null,
    finish: 'plain',
    neededDrills: 10,
    packets: 1,
  }));
  expect((await request.put(`/api/canvases/${id}/sheet`, { data: { lines } })).ok()).toBe(true);
  const grid = Array.from({ length: 50 }, (_, y) =>
    Array.from({ length: 40 }, (_, x) => `AB-${1000 + ((y * 40 + x) % 200)}-XYZ`).join(','),
  ).join('\n');
  const put = await request.put(`/api/canvases/${id}/chart`, {
    data: grid,
    headers: { 'content-type': 'text/csv' },
  });
  expect(put.ok()).toBe(true);
  await request.post(`/api/canvases/${id}/bags`, { data: { id: randomUUID(), label: word.slice(0, 40) } });
  const note = { id: randomUUID(), kind: 'print', note: word };
  expect((await request.post(`/api/canvases/${id}/inspection`, { data: note })).ok()).toBe(true);
  const first = 'AB-1000-XYZ';
  for (const [view, said] of [
    ['/', word],
    ['/storage', `Redraw ${word.slice(0, 60)}`],
    ['checkin', first],
    ['checkin/request', first],
    ['checkin/inspection', word],
    ['kitup', 'Cases for this kit'],
    ['chart', first],
    ['placing', first],
    ['bench', first],
    ['progress', first],
  ] as const) {
    await page.goto(view.startsWith('/') ? view : `/canvas/${id}/${view}`);
    if (view === 'progress') await page.getByRole('button', { name: 'Colours' }).click();
    await expect(page.getByText(said).last()).toBeAttached();
    for (const [width, height] of [
      [1280, 800],
      [820, 1180],
      [390, 844],
      [320, 640],
    ] as const) {
      await page.setViewportSize({ width, height });
      const over = () =>
        page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
      await expect.poll(over, { message: `${view} at ${width}` }).toBeLessThanOrEqual(0);
      // What is pressed keeps its word in one piece beside what is typed.
      if (view === 'checkin') {
        const button = (await page.getByRole('button', { name: 'Count', exact: true }).boundingBox())!;
        expect(button.width).toBeGreaterThan(60);
      }
      if (view !== 'bench') continue;
      // The number beside a long name stays whole, within its list.
      const list = (await page
        .getByRole('list', { name: /in the order in which they are laid/ })
        .boundingBox())!;
      const count = (await page.getByText('4 left', { exact: true }).first().boundingBox())!;
      expect(count.x + count.width).toBeLessThanOrEqual(list.x + list.width + 1);
    }
  }
  // Others plan their pots on the same server.
  await request.delete(`/api/storages/${box}`);
});

test('where I was: stations agree, it is there over night, and the shelf says it', async ({
  page,
  request,
  browser,
  serverUrl,
}) => {
  const id = await shelve(request, 'Where I was');
  await page.goto(`/canvas/${id}/bench`);
  await page.getByRole('button', { name: 'Section after' }).click();
  await page.getByRole('button', { name: /1204/ }).click();
  await expect(left(page)).toHaveText('8 left here of 8');
  await page.getByRole('link', { name: 'Its placements' }).click();
  await expect(page.getByTestId('step')).toContainText('1204');
  await expect(page.getByRole('button', { name: /^Section 2 of 2/ })).toBeVisible();
  await page.getByRole('link', { name: 'Sections' }).click();
  await expect(page.getByRole('heading', { name: 'Section 2 of 2' })).toBeVisible();
  await page.getByRole('link', { name: 'Chart' }).click();
  await expect(page.getByText('drills of 1204, in front now')).toBeVisible();
  await page.getByRole('link', { name: 'Bench' }).click();
  await expect(left(page)).toHaveText('8 left here of 8');
  await expect(page).toHaveURL(/section=2&colour=3/);
  await page.keyboard.press('a');
  await allSaved(page);
  await page.keyboard.press('Control+z');
  await expect(left(page)).toHaveText('8 left here of 8');
  await allSaved(page);
  // One drill, so that the canvas is under way.
  const spot = await pointOf(page, { x: 20, y: 0, width: 4, height: 16 }, 21, 13);
  await page.mouse.click(spot.x, spot.y);
  await allSaved(page);
  await expect
    .poll(async () => (await (await request.get(`/api/canvases/${id}`)).json()).goesOnAt)
    .toBe('Section 2, colour 1204, 7 left');
  // The next morning, on another device.
  const other = await browser.newContext({ baseURL: serverUrl });
  const tablet = await other.newPage();
  await tablet.goto('/');
  const entry = tablet.getByRole('listitem').filter({ hasText: 'Where I was' });
  await expect(entry).toContainText('Section 2, colour 1204, 7 left');
  await entry.getByRole('link', { name: /Go on laying/ }).click();
  await expect(left(tablet)).toHaveText('7 left here of 8');
  // The tablet looks elsewhere; the desk stays where it is, also over a reload.
  await tablet.getByRole('button', { name: 'Section before' }).click();
  await expect(tablet.getByRole('button', { name: /^Section 1 of 2/ })).toBeVisible();
  await tablet.waitForTimeout(700);
  await page.reload();
  await expect(left(page)).toHaveText('7 left here of 8');
  await other.close();
});

test('one section of a thousand: by the map, by its number, by arrow keys, or the next in order', async ({
  page,
  request,
}) => {
  // In the panels that the kit comes in, whatever another test made of them: sections begin afresh at each.
  const kit = {
    columnCuts: [280, 560],
    rowCuts: [],
    overlap: 0,
    marginMm: 25,
    reachWidthCm: null,
    reachHeightCm: null,
  };
  await request.put(`/api/canvases/${DEMO.glasshouse}/panels`, { data: kit });
  await page.goto(`/canvas/${DEMO.glasshouse}/placing?section=95`);
  const chooser = page.getByRole('button', { name: /choose another/ });
  await expect(chooser).toContainText('Section 95 of 1,050');
  await chooser.click();
  const dialog = page.getByRole('dialog', { name: 'Choose a section' });
  const map = dialog.getByRole('application', { name: /^Map of 1,050 sections/ });
  await expect(map).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(dialog.getByText('Section 137: 400 drills to lay')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(chooser).toContainText('Section 137 of 1,050');
  await chooser.click();
  await dialog.getByLabel('Section', { exact: true }).fill('1,050');
  await dialog.getByRole('button', { name: 'Go to section 1,050' }).click();
  await expect(chooser).toContainText('Section 1,050 of 1,050');
  await chooser.click();
  await dialog.getByRole('button', { name: /^Next in order: 95/ }).click();
  await expect(chooser).toContainText('Section 95 of 1,050');
  // As a table, every one of them can be read.
  await page.goto(`/canvas/${DEMO.glasshouse}/sections`);
  await page.getByRole('button', { name: 'As a table' }).click();
  await expect(page.getByRole('table', { name: 'Sections' }).getByRole('row')).toHaveCount(1051);
  await page.goto(`/canvas/${DEMO.glasshouse}/placing?section=95`);
  await chooser.click();
  const box = (await map.boundingBox())!;
  await page.mouse.click(box.x + 3, box.y + 3);
  await expect(chooser).toContainText('Section 1 of 1,050');
});

test('the last drill: the clock stops, the page says so, and leads on', async ({ page, request }) => {
  const id = await shelve(request, 'The last drill');
  const runs = [0, 24 * 14 + 19];
  await request.post(`/api/canvases/${id}/marks`, { data: { id: randomUUID(), kind: 'lay', runs } });
  await page.goto(`/canvas/${id}/bench`);
  await page.getByRole('button', { name: 'Start a sitting' }).click();
  await expect(page.getByRole('timer')).toBeVisible();
  await page.getByRole('button', { name: 'All of it laid' }).click();
  await expect(page.getByText('All 376 drills are laid').or(page.getByText(/go on to 1/))).toBeVisible();
  await page.keyboard.press('n');
  if (await page.getByRole('button', { name: /go on to 1/ }).isVisible()) {
    await page.getByRole('button', { name: /go on to 1/ }).click();
    await page.waitForTimeout(650);
    await page.getByRole('button', { name: 'All of it laid' }).click();
  }
  await expect(page.getByRole('heading', { name: 'All 376 drills are laid' })).toBeVisible();
  await expect(page.getByRole('timer')).toBeHidden();
  await expect(page.locator('#percent-laid')).toHaveText('100.00');
  await page.getByRole('link', { name: 'See how it went' }).click();
  await expect(page.getByText('100.00 %').first()).toBeVisible();
  // What is finished stands behind all that is not, perhaps on another page.
  await page.goto('/?find=drill+last');
  await expect(page.getByRole('listitem').filter({ hasText: 'The last drill' })).toContainText('All laid');
});

test.describe('on a phone', () => {
  test.use({ hasTouch: true, viewport: { width: 390, height: 844 } });

  test('the station in hand is in view, nothing lies over the squares, and terms explain themselves', async ({
    page,
    request,
  }) => {
    const id = await shelve(request, 'On a phone');
    await page.goto(`/canvas/${id}/progress`);
    await expect(page.getByRole('link', { name: 'Progress' })).toBeInViewport();
    await page.goto(`/canvas/${id}/placing?section=1`);
    await cloth(page).waitFor();
    // The page may still be settling around the canvas.
    await expect(async () => {
      const box = (await cloth(page).boundingBox())!;
      for (const name of ['Nearer', 'Farther', 'Show all of it']) {
        const button = (await page.getByRole('button', { name }).boundingBox())!;
        const apart =
          button.x >= box.x + box.width ||
          button.y >= box.y + box.height ||
          button.x + button.width <= box.x ||
          button.y + button.height <= box.y;
        expect(apart, `${name} lies over the canvas`).toBe(true);
      }
    }).toPass();
    await page.getByRole('button', { name: 'placements' }).tap();
    await expect(page.getByRole('tooltip', { name: /^One setting down of a pen tip/ })).toBeVisible();
  });
});

test('a file is dropped on the page that reads it; where nothing reads one the page stays', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Dropped', false);
  /** Drops a file on the heading of the page. @returns whether the browser leaves the page alone */
  const drop = (name: string, text: string) =>
    page.evaluate(
      ([name, text]) => {
        const dataTransfer = new DataTransfer();
        dataTransfer.items.add(new File([text!], name!));
        const on = document.querySelector('h1')!;
        const events = ['dragover', 'drop'].map(
          (kind) => new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer }),
        );
        for (const event of events) on.dispatchEvent(event);
        return events.every(({ defaultPrevented }) => defaultPrevented);
      },
      [name, text],
    );
  await page.goto(`/canvas/${id}/checkin`);
  const field = page.getByLabel('Code on this bag');
  await field.fill('41');
  expect(await drop('sheet.csv', 'Code,Drills')).toBe(true);
  await expect(field).toHaveValue('41');
  await expect(page.getByRole('dialog')).toHaveCount(0);

  await page.goto(`/canvas/${id}/chart/read`);
  await expect(page.getByText('Choose a file')).toBeVisible();
  const rows = Array.from({ length: 16 }, (_, y) => new Array(24).fill(y < 8 ? '412' : '98').join(','));
  expect(await drop('chart.csv', rows.join('\n'))).toBe(true);
  await expect(page.getByText('chart.csv')).toBeVisible();
});

test.describe('in colours of the system’s choosing', () => {
  test.use({ viewport: { width: 1024, height: 768 }, contextOptions: { forcedColors: 'active' } });

  test('what is pressed, chosen and done is still told apart', async ({ page, request }) => {
    const id = await shelve(request, 'Forced colours');
    await page.goto(`/canvas/${id}/bench?section=1`);
    await expect(left(page)).toHaveText('160 left here of 160');
    const outline = (name: string) =>
      page
        .getByRole('button', { name, exact: true })
        .evaluate((element) => getComputedStyle(element).outlineStyle);
    expect(await outline('Lay')).toBe('solid');
    expect(await outline('Lift')).toBe('none');
    const here = page.getByRole('link', { name: 'Bench' });
    expect(await here.evaluate((element) => getComputedStyle(element).outlineStyle)).toBe('solid');
    const { drill, shown } = await lightestOnWall(page);
    expect(shown).toBe(drill);
  });
});

/** The lightest drill on the wall of bags, and how the screen shows it. */
async function lightestOnWall(page: Page): Promise<{ drill: string; shown: string }> {
  await page.goto(`/canvas/${DEMO.lantern}/checkin`);
  const swatches = page.locator('li .swatch:last-child');
  await swatches.first().waitFor();
  const fills = await swatches.evaluateAll((all) =>
    all.map((each) => (each as HTMLElement).style.background),
  );
  const drills = fills.map((fill) => fill.match(/\d+/g)!.map(Number) as [number, number, number]);
  const light = drills.map(([r, g, b]) => r + g + b);
  const at = light.indexOf(Math.max(...light));
  const { data, width } = PNG.sync.read(await swatches.nth(at).screenshot());
  // In the corner, where no symbol is.
  const [r, g, b] = data.subarray((2 * width + 2) * 4);
  return { drill: rgbToHex(drills[at]!), shown: rgbToHex([r!, g!, b!]) };
}

test('a browser that darkens pages by itself leaves the colours of drills as they are', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' });
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setAutoDarkModeOverride', { enabled: true });
  const { drill, shown } = await lightestOnWall(page);
  expect(shown).toBe(drill);
});

test('on paper: the canvas’s name, the date, every row, page numbers, and day colours in the evening', async ({
  page,
}) => {
  await page.goto(`/canvas/${DEMO.kingfisher}/progress`);
  await page.getByRole('button', { name: 'Evening light' }).click();
  await page.getByRole('button', { name: 'Colours' }).click();
  await expect(page.getByRole('table', { name: 'Left per colour' })).toBeVisible();
  const path = test.info().outputPath('progress.pdf');
  await page.pdf({ path, format: 'A4' });
  const bytes = new Uint8Array(await readFile(path));
  const count = (await PDFDocument.load(bytes)).getPageCount();
  const pages = await Promise.all(Array.from({ length: count }, (_, i) => words(bytes, i + 1)));
  // Spaces are where the print sets them.
  const text = pages
    .flatMap((found) => found.map((word) => word.text))
    .join('')
    .replace(/\s+/g, '');
  const today = new Date().toLocaleDateString('en-GB', { dateStyle: 'long' });
  for (const wanted of [
    'Kingfisher at the Sluice',
    'Sittings',
    today,
    `1 of ${count}`,
    `${count} of ${count}`,
  ]) {
    expect(text).toContain(wanted.replaceAll(' ', ''));
  }
  const { lines } = await (await page.request.get(`/api/canvases/${DEMO.kingfisher}/sheet`)).json();
  for (const { code } of lines as { code: string }[]) expect(text).toContain(code);
  await page.emulateMedia({ media: 'print' });
  expect(await page.evaluate(() => getComputedStyle(document.body).color)).toBe('rgb(0, 0, 0)');
});

test('a stash of hundreds is found in as one types, and drawn only where it is seen', async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const add = (code: string) =>
    request.post('/api/stash', {
      data: { id: randomUUID(), code, name: 'Sand', finish: 'plain', shape: 'square', drills: 10 },
    });
  for (let from = 0; from < 300; from += 50) {
    const added = await Promise.all(Array.from({ length: 50 }, (_, i) => add(`S${from + i}`)));
    expect(added.every((each) => each.status() === 201)).toBe(true);
  }
  await page.goto('/stash');
  const table = page.getByRole('table', { name: 'The stash, in code order' });
  await expect(table).toHaveAttribute('aria-rowcount', /^3\d\d$/);
  expect(await table.getByRole('row').count()).toBeLessThan(120);
  await page.getByLabel('Find in the stash').fill('s299');
  await expect(table.getByRole('row')).toHaveCount(2);
  // Corrected here while another screen takes from it: only what was touched here changes.
  const { items } = await (await request.get('/api/stash')).json();
  const { id, ...item } = items.find(({ code }: { code: string }) => code === 'S299');
  const elsewhere = (drills: number) =>
    request.put(`/api/stash/${id}`, { data: { ...item, id: randomUUID(), drills } });
  const row = table.getByRole('row', { name: /S299/ });
  const edit = async () => {
    await row.getByRole('button', { name: /^Edit/ }).click();
    await expect(page.getByLabel('Drills left over')).toBeFocused();
  };
  await edit();
  await elsewhere(4);
  await page.getByLabel('Name, if you like').fill('Dune');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(row).toContainText('Dune');
  await expect(page.getByLabel('Colour code')).toBeFocused();
  await expect(row.getByRole('cell').nth(4)).toHaveText('4');
  await edit();
  await elsewhere(3);
  await page.getByLabel('Drills left over').fill('8');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('There are 3 of S299 by now, and not 4');
  await expect(row.getByRole('cell').nth(4)).toHaveText('3');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(row.getByRole('cell').nth(4)).toHaveText('8');
  await page.getByLabel('Find in the stash').fill('s nowhere');
  await expect(page.getByText('Nothing in the stash is called “s nowhere”.')).toBeVisible();
});
