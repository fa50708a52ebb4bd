import { randomUUID } from 'node:crypto';
import type { APIRequestContext, Locator, Page } from '@playwright/test';
import sharp from 'sharp';
import type { LegendLine } from '../../src/core/canvas/legend';
import type { CellRect } from '../../src/core/cells/chart';
import type { Corners } from '../../src/core/reading/homography';
import { shotPlan } from '../../src/core/reading/shotPlan';
import { homographyTo, mapped } from '../../src/core/view/projective';
import { DEMO, expect, lineAt, SHEET, shelve, test } from './bench';

/** A canvas with a colour list and no chart, as one of those whose kit brought no file. */
async function withoutChart(
  request: APIRequestContext,
  title: string,
  { width, height, lines }: { width: number; height: number; lines: readonly Omit<LegendLine, 'line'>[] },
): Promise<string> {
  const id = randomUUID();
  await request.post('/api/canvases', {
    data: { id, title, shape: 'square', pitchMm: 2.5, width, height, packetDrills: 200 },
  });
  const put = await request.put(`/api/canvases/${id}/sheet`, { data: { lines } });
  expect(put.ok()).toBe(true);
  return id;
}

async function listOf(request: APIRequestContext, id: string): Promise<LegendLine[]> {
  return ((await (await request.get(`/api/canvases/${id}/sheet`)).json()) as { lines: LegendLine[] }).lines;
}

async function cellsOf(request: APIRequestContext, id: string): Promise<Uint16Array> {
  const bytes = await (await request.get(`/api/canvases/${id}/chart`)).body();
  return new Uint16Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
}

/** Cuts one column of swatches after the other apart, until every colour is known. */
async function showColours(page: Page, canvas: string): Promise<void> {
  await page.goto(`/canvas/${canvas}/chart/photos/colours`);
  await page.getByRole('button', { name: 'Simulated camera' }).click();
  const known = page.getByTestId('samples-known');
  await expect(page.getByAltText(/^The printed list/)).toBeVisible();
  for (let column = 0; column < 4; column++) {
    const before = await known.textContent();
    const [count, all] = before!.match(/\d+/g)!;
    if (count === all) return;
    await page.getByRole('button', { name: 'Cut the swatches apart' }).click();
    await page.getByRole('button', { name: 'Yes, these belong together' }).click();
    await expect(known).not.toHaveText(before!);
  }
}

/** So many squares are put in doubt. */
const SPOILT = 16;

/**
 * The first photo is read worse than it is: of some squares in doubt every other one is wrong, and two are wrong in
 * silence: as `rare`, a colour with few squares, where they are soon seen. The photos of a usual evening leave next to
 * nothing to look at.
 */
async function readWorse(page: Page, rare: number): Promise<void> {
  let read = 0;
  await page.route('**/result', async (route) => {
    if (read++ > 0) return route.continue();
    const body = route.request().postDataJSON();
    const numbers = (text: string) => new Uint16Array(Uint8Array.from(Buffer.from(text, 'base64')).buffer);
    const [cells, others, doubt] = [body.cells, body.others, body.doubt].map(numbers) as [
      Uint16Array,
      Uint16Array,
      Uint16Array,
    ];
    const from = 6 * body.columns + 4;
    for (let square = from; square < from + SPOILT; square++) {
      if (others[square] === 0) others[square] = cells.find((line) => line !== cells[square])!;
      if (square % 2 === 0) [cells[square], others[square]] = [others[square]!, cells[square]!];
      doubt[square] = 30_000;
    }
    for (const square of [from + body.columns, from + 2 * body.columns]) cells[square] = rare;
    const text = (values: Uint16Array) => Buffer.from(values.buffer).toString('base64');
    await route.continue({
      postData: JSON.stringify({ ...body, cells: text(cells), others: text(others), doubt: text(doubt) }),
    });
  });
}

/**
 * How much of Lantern Harbour is read, from its upper left corner: two photos of it, for fifteen take minutes;
 * OCULENT_TEST_WHOLE=1 reads all of it.
 */
const PART = process.env.OCULENT_TEST_WHOLE ? { width: 160, height: 200 } : { width: 28, height: 72 };

test('Lantern Harbour is read from photos: taken, squared, read, checked, and the chart is the true one', async ({
  page,
  request,
}) => {
  test.setTimeout(400_000);
  const whole = await cellsOf(request, DEMO.lantern);
  const truth = Uint16Array.from(
    { length: PART.width * PART.height },
    (_, i) => whole[Math.floor(i / PART.width) * 160 + (i % PART.width)]!,
  );
  const all = truth.length.toLocaleString('en');
  const list = (await listOf(request, DEMO.lantern)).map((each) => ({
    ...each,
    neededDrills: truth.filter((line) => line === each.line).length,
  }));
  const { shots } = shotPlan(PART, 12);
  const [{ width: columns, height: rows }] = shots as [CellRect];
  const canvas = await withoutChart(request, 'Lantern Harbour, from photos', {
    ...PART,
    lines: list.map(({ line: _, ...rest }) => rest),
  });
  const photos = `/canvas/${canvas}/chart/photos`;
  await page.goto(photos);
  await expect(page.getByText(`0 of ${shots.length} parts of the canvas are there.`)).toBeVisible();
  await page.getByRole('button', { name: 'Simulated camera' }).click();
  await page.getByLabel('Canvas before the camera').selectOption({ label: 'Lantern Harbour' });
  await page.getByRole('button', { name: 'Take them' }).click();
  await expect(page.getByRole('dialog')).toBeHidden({ timeout: 120_000 });
  await expect(page.getByTestId('photos-read')).toHaveText(`${shots.length} photos`);
  await expect(
    page.getByText(
      `1 of ${shots.length} parts of the canvas are there. Where ${shots.length - 1} photo lies is found by reading it.`,
    ),
  ).toBeVisible();

  await test.step('the lines of a photo are followed and looked at, and one corner is set again by key', async () => {
    await page.getByRole('link', { name: 'Corners' }).first().click();
    const ring = page.getByRole('button', { name: /^Upper left corner/ });
    const at = (await ring.getAttribute('aria-label'))!;
    await ring.focus();
    await page.keyboard.press('ArrowRight');
    await expect(ring).not.toHaveAttribute('aria-label', at);
    await page.keyboard.press('ArrowLeft');
    await expect(ring).toHaveAttribute('aria-label', at);
    await page.getByRole('button', { name: 'Count them' }).click();
    await expect(page.getByText(`Counted ${columns} columns and ${rows} rows`)).toBeVisible({
      timeout: 30_000,
    });
    await page.getByRole('button', { name: 'Follow the lines' }).click();
    await expect(page.getByText('Do the lines lie on the printed ones?')).toBeVisible({ timeout: 30_000 });
    await page.getByRole('button', { name: 'Yes, save' }).click();
    await expect(page).toHaveURL(photos);
  });

  await showColours(page, canvas);
  await page.goto(photos);
  const rare = list
    .filter((each) => each.neededDrills > 2)
    .reduce((a, b) => (b.neededDrills < a.neededDrills ? b : a));
  await readWorse(page, rare.line);
  await page.getByRole('button', { name: `Read ${shots.length} photos` }).click();
  await expect(page.getByTestId('photos-read')).toHaveText(`${shots.length} of ${shots.length} photos read`, {
    timeout: 240_000,
  });

  await page.getByRole('link', { name: 'Check what was read' }).first().click();
  const left = page.getByTestId('left-to-check');
  await expect(left).toHaveText(/squares? to look at|Every square is settled/, { timeout: 30_000 });
  await expect(page.getByText(`All ${all} squares read`)).toBeVisible();
  const open = Number((/[\d,]+/.exec((await left.textContent())!)?.[0] ?? '0').replace(',', ''));
  // At most 3 % are shown of a usual evening's photos.
  expect(open - SPOILT).toBeLessThan(truth.length * 0.03);
  expect(open).toBeGreaterThan(SPOILT / 2);
  /** What a person presses and taps. */
  let actions = 0;
  const codeOf = (line: number) => list.find((each) => each.line === line)!.code;
  const truthAt = (label: string) => {
    const [column, row] = label.match(/\d+/g)!.map(Number);
    return truth[(row! - 1) * PART.width + column! - 1]!;
  };
  const settleDoubts = async () => {
    for (let group = 0; group < 400 && !(await left.textContent())!.startsWith('Every'); group++) {
      const before = await left.textContent();
      const answers = page
        .getByRole('region', { name: 'In doubt' })
        .getByRole('button', { name: /^These \d+ are / });
      if ((await answers.count()) === 0) {
        // A single square: one key.
        const square = truthAt(
          (await page.getByRole('img', { name: /^The square in column/ }).getAttribute('aria-label'))!,
        );
        const choices = await page
          .locator('section[aria-label="In doubt"] button:has(kbd) .number.block')
          .allTextContents();
        const which = choices.indexOf(codeOf(square));
        if (which >= 0) await page.keyboard.press(String(which + 1));
        else await page.getByLabel('Another colour').selectOption(String(square));
        actions++;
      } else {
        const tiles = page.getByRole('button', { name: / is different$/ });
        const labels = await tiles.evaluateAll((all) => all.map((each) => each.getAttribute('aria-label')!));
        const lines = labels.map(truthAt);
        const codes = (await answers.allTextContents()).map((text) => text.split(' are ')[1]!);
        const share = (code: string) => lines.filter((line) => codeOf(line) === code).length;
        const best = codes.reduce((a, b) => (share(b) > share(a) ? b : a));
        if (share(best) === 0) {
          await page.getByLabel('Another colour').selectOption(String(lines[0]));
          actions++;
        } else {
          for (const [i, line] of lines.entries()) {
            if (codeOf(line) === best) continue;
            await tiles.nth(i).click();
            actions++;
          }
          // Nobody answers faster than a double click.
          await page.waitForTimeout(350);
          await answers.filter({ hasText: best }).click();
          actions++;
        }
      }
      await expect(left).not.toHaveText(before!);
    }
  };
  // The few that are wrong and not in doubt show in the counts: of a colour with too many, the oddest are looked at.
  const right = page.getByText('every colour as often as the colour list says');
  const settleCounts = async () => {
    for (let look = 0; look < 20 && !(await right.isVisible()); look++) {
      await page.getByRole('button', { name: /^Counts/ }).click();
      await page
        .getByRole('row')
        .filter({ hasText: 'too many' })
        .nth(look % 3)
        .or(page.getByRole('row').filter({ hasText: 'too many' }).first())
        .first()
        .getByRole('button')
        .click();
      const sheet = page.getByRole('region', { name: 'All of a colour' });
      const line = Number(await sheet.getByLabel('Colour to look at').inputValue());
      const tiles = sheet.getByRole('listitem').getByRole('button');
      const labels = await tiles.evaluateAll((all) => all.map((each) => each.getAttribute('aria-label')!));
      const odd = labels.flatMap((label, i) =>
        truthAt(label) === line ? [] : [{ i, line: truthAt(label) }],
      );
      actions += 2;
      if (odd.length === 0) {
        await sheet.getByRole('button', { name: /^Show \d+ more/ }).click();
        continue;
      }
      for (const { i } of odd.filter((each) => each.line === odd[0]!.line)) await tiles.nth(i).click();
      await sheet.getByLabel('In truth').selectOption(String(odd[0]!.line));
      actions += odd.length + 1;
      await expect(sheet.getByLabel('In truth')).toBeHidden();
    }
  };
  await settleDoubts();
  await settleCounts();
  await expect(right).toBeVisible();
  // Two seconds for each are ten minutes for 32,000 squares.
  expect(actions).toBeLessThan(Math.max(100, (300 * truth.length) / 32_000));

  await test.step('what was said last can be taken back, and said again', async () => {
    await page.getByRole('button', { name: 'Undo' }).click();
    // What was answered was in doubt, or one of too many.
    const isSettled = async () =>
      (await left.textContent())!.startsWith('Every') && (await right.isVisible());
    await expect.poll(isSettled).toBe(false);
    await page.getByRole('button', { name: /^In doubt/ }).click();
    await settleDoubts();
    await settleCounts();
    await expect(right).toBeVisible();
  });
  await page.getByRole('button', { name: 'Make the chart', exact: true }).click();
  await expect(page.getByText(`${all} squares read from photos.`)).toBeVisible({ timeout: 30_000 });
  const read = await cellsOf(request, canvas);
  expect(read.filter((line, square) => line !== truth[square]).length).toBe(0);
  const from = (await (await request.get(`/api/canvases/${canvas}/reading/chart`)).json()) as {
    photos: string[];
    origins: string;
  };
  expect(from.photos).toHaveLength(shots.length);
  expect(from.origins.split(' ').reduce((sum, run) => sum + Number(run.split('×')[1]), 0)).toBe(truth.length);
  await page.goto(photos);
  await expect(page.getByRole('link', { name: 'Corners' })).toHaveCount(0);
});

const LINES = SHEET.split('\n')
  .slice(1)
  .map((row) => {
    const [keyNumber, symbol, code, name, hex, finish, drills, packets] = row.split('\t');
    return {
      ...{ keyNumber: keyNumber!, symbol: symbol!, code: code!, name: name!, hex: hex! },
      finish: (finish || 'plain') as 'plain',
      neededDrills: Number(drills),
      packets: Number(packets),
    };
  });

test('a photo that cannot be read is refused in a sentence, and nothing of it is kept', async ({
  page,
  request,
}) => {
  const canvas = await withoutChart(request, 'Odd photos', { width: 24, height: 16, lines: LINES });
  const photos = `/canvas/${canvas}/chart/photos`;
  const jpeg = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#807a70' } })
      .jpeg()
      .toBuffer();
  await page.goto(photos);
  const input = page.locator('input[type=file]').first();
  const put = async (name: string, mimeType: string, buffer: Buffer) =>
    input.setInputFiles({ name, mimeType, buffer });
  await put('IMG_1.HEIC', 'image/heic', Buffer.from('x'));
  await expect(page.getByRole('alert')).toContainText('HEIC');
  await put('tiny.jpg', 'image/jpeg', await jpeg(90, 60));
  await expect(page.getByRole('alert')).toContainText('90 × 60 pixels');
  await put('half.jpg', 'image/jpeg', (await jpeg(900, 700)).subarray(0, 400));
  await expect(page.getByRole('alert')).toContainText('damaged, cut short');
  await expect(page.getByTestId('photos-read')).toHaveText('0 photos');
  // Of something else: no lines come again, and squares that small are not read.
  await put('table.jpg', 'image/jpeg', await jpeg(900, 700));
  await expect(page.getByTestId('photos-read')).toHaveText('1 photo');
  await page.getByRole('link', { name: 'Mark its corners' }).click();
  await page.getByRole('button', { name: /^Upper left corner/ }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await page.getByRole('button', { name: 'Count them' }).click();
  await expect(page.getByRole('alert')).toContainText('No lines come again');
  await page.getByRole('textbox', { name: 'Columns' }).fill('200');
  await expect(page.getByText('too small to be read')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Follow the lines' })).toBeDisabled();
});

test('a photo is taken away and brought back; another screen sees it come', async ({
  page,
  context,
  request,
}) => {
  const canvas = await withoutChart(request, 'Two screens', { width: 24, height: 16, lines: LINES });
  const photos = `/canvas/${canvas}/chart/photos`;
  const other = await context.newPage();
  await other.goto(photos);
  await expect(other.getByTestId('photos-read')).toHaveText('0 photos');
  await page.goto(photos);
  const buffer = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#807a70' } })
    .jpeg()
    .toBuffer();
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'one.jpg', mimeType: 'image/jpeg', buffer });
  await expect(other.getByTestId('photos-read')).toHaveText('1 photo');
  await other.getByRole('button', { name: 'Remove photo 1' }).click();
  await expect(page.getByTestId('photos-read')).toHaveText('0 photos');
  await page.getByText('1 photo removed').click();
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(other.getByTestId('photos-read')).toHaveText('1 photo');
});

/** Sets the rings of a picture on places, by tapping where each belongs. */
async function setCorners(page: Page, picture: Locator, corners: Corners): Promise<void> {
  const names = ['Upper left', 'Upper right', 'Lower right', 'Lower left'];
  for (const [i, name] of names.entries()) {
    await page.getByRole('button', { name: new RegExp(`^${name} corner`) }).focus();
    await tapAt(picture, corners[i]!);
  }
}

/** Taps a picture at a place in its own pixels. */
async function tapAt(picture: Locator, [x, y]: readonly [number, number]): Promise<void> {
  const [width, height, wide, tall] = await picture.evaluate((image: HTMLImageElement) => [
    ...[image.naturalWidth, image.naturalHeight],
    ...[image.clientWidth, image.clientHeight],
  ]);
  await picture.click({ position: { x: (x / width!) * wide!, y: (y / height!) * tall! } });
}

test('where there is no list, squares that are pointed at show how the colours are printed', async ({
  page,
  request,
}) => {
  const canvas = await shelve(request, 'Pointed at');
  const [columns, rows] = [20, 16];
  const taken = await request.get(
    `/api/canvases/${canvas}/reading/simulated.jpg?of=${canvas}&x=0&y=0&width=${columns}&height=${rows}&px=32&level=easy&seed=9`,
  );
  const [corners] = JSON.parse(taken.headers()['x-oculent-corners']!) as Corners[];
  const map = homographyTo(corners!, columns, rows);
  const photos = `/canvas/${canvas}/chart/photos`;
  await page.goto(photos);
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      ...{ name: 'one.jpg', mimeType: 'image/jpeg' },
      buffer: Buffer.from(await taken.body()),
    });
  await page.getByRole('link', { name: 'Mark its corners' }).click();
  await setCorners(page, page.getByAltText('Photo 1, with the corners of its squares'), corners!);
  // One column too many is told before anything is read.
  await page.getByRole('textbox', { name: 'Columns' }).fill('21');
  await page.getByRole('textbox', { name: 'Rows', exact: true }).fill('16');
  await page.getByLabel('I know where it lies').check();
  await page.getByRole('button', { name: 'Follow the lines' }).click();
  await expect(page.getByRole('alert')).toContainText('20 columns and 16 rows are counted, not 21 and 16', {
    timeout: 30_000,
  });
  await page.getByRole('button', { name: 'Back to its corners' }).click();
  await page.getByRole('textbox', { name: 'Columns' }).fill('20');
  await page.getByRole('button', { name: 'Follow the lines' }).click();
  await expect(page.getByText('Do the lines lie on the printed ones?')).toBeVisible({ timeout: 30_000 });
  // A crossing can be chosen and moved without a mouse.
  await page.getByRole('button', { name: 'Choose a crossing by its numbers' }).click();
  const crossing = page.getByRole('button', { name: /^Corner of squares in column 11, row 9/ });
  await crossing.focus();
  await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'Leave it as it was' }).click();
  await page.getByRole('button', { name: 'Yes, save' }).click();
  await expect(page).toHaveURL(photos);

  await page.goto(`${photos}/colours`);
  await page.getByRole('button', { name: 'From squares of a photo' }).click();
  await page.getByRole('button', { name: 'Follow its lines' }).click();
  const choice = page.getByLabel('Colour that is pointed at');
  await choice.waitFor({ timeout: 30_000 });
  const picture = page.getByAltText('A photo of which squares are pointed at');
  for (const [line, row] of [
    [1, 3],
    [2, 9],
    [3, 13],
  ] as const) {
    await choice.selectOption(String(line));
    for (const column of [4, 9, 15]) await tapAt(picture, mapped(map, column + 0.5, row + 0.5));
  }
  await page.getByRole('button', { name: 'Keep 3 colours' }).click();
  await expect(page.getByTestId('samples-known')).toHaveText('3 of 3 colours known', { timeout: 30_000 });
  await page.goto(photos);
  await page.getByRole('button', { name: 'Read 1 photo' }).click();
  await expect(page.getByTestId('photos-read')).toHaveText('1 of 1 photo read', { timeout: 30_000 });
  await page.getByRole('link', { name: 'Check what was read' }).first().click();
  await expect(page.getByTestId('left-to-check')).toHaveText('Every square is settled', { timeout: 30_000 });
  await page.getByRole('button', { name: 'Make the chart', exact: true }).click();
  await expect(page.getByText('320 squares read from photos.')).toBeVisible();
  const read = await cellsOf(request, canvas);
  expect([...read]).toEqual(Array.from({ length: 24 * 16 }, (_, i) => lineAt(i % 24, Math.floor(i / 24))));
});

test('the printed sheet is read from a photo, what is doubtful beside its picture', async ({
  page,
  request,
}) => {
  const list = (await listOf(request, DEMO.kingfisher)).slice(0, 12);
  const canvas = await withoutChart(request, 'Sheet by photo', {
    ...{ width: 24, height: 16 },
    lines: list.map(({ line: _, ...rest }) => rest),
  });
  const taken = await request.get(
    `/api/canvases/${canvas}/reading/simulated.jpg?of=${canvas}&what=sheet&seed=5`,
  );
  const [corners] = JSON.parse(taken.headers()['x-oculent-corners']!) as Corners[];
  await page.goto(`/canvas/${canvas}/checkin/sheet`);
  await page.getByRole('button', { name: 'Photograph it' }).click();
  await page.locator('input[type=file]').setInputFiles({
    ...{ name: 'sheet.jpg', mimeType: 'image/jpeg' },
    buffer: Buffer.from(await taken.body()),
  });
  const picture = page.getByAltText('The photo of the sheet, with the corners of its table');
  await picture.waitFor();
  await setCorners(page, picture, corners!);
  await page.getByRole('button', { name: 'Read the sheet' }).click();
  await expect(page.getByText('12 rows read. Nothing is saved yet.')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Go on with this list' }).click();
  await expect(page.getByText('12 colours', { exact: true })).toBeVisible();
});

test('loose drills are counted on a photo of a tray, and the bag says so', async ({ page, request }) => {
  const canvas = await withoutChart(request, 'Tray', { width: 24, height: 16, lines: LINES });
  await page.goto(`/canvas/${canvas}/checkin`);
  await page.getByRole('button', { name: 'Count loose drills on a photo' }).click();
  await page.getByRole('button', { name: 'Simulated tray' }).click();
  const found = page.getByTestId('tray-count');
  await expect(found).toHaveText(/^\d+ drills$/, { timeout: 30_000 });
  const drills = (await found.textContent())!.split(' ')[0]!;
  await page.getByRole('button', { name: 'Count them for 412' }).click();
  await expect(page.getByText(`${drills} drills of 412 counted.`)).toBeVisible();
  await expect
    .poll(async () => {
      const { bags } = (await (await request.get(`/api/canvases/${canvas}/bags`)).json()) as {
        bags: { drills: number; how: string }[];
      };
      return bags.map((bag) => [bag.drills, bag.how]);
    })
    .toEqual([[Number(drills), 'photographed']]);
});
