import type { APIRequestContext, Locator, Page } from '@playwright/test';
import { heapOf } from '../../demo/heap';
import { lanternKit } from '../../demo/kits';
import { seeded } from '../../demo/random';
import { DEMO, expect, shelve, test } from './bench';

test('Lantern Harbour is checked in from its heap by keyboard alone, and every planted fault is named', async ({
  page,
  request,
}) => {
  test.setTimeout(180_000);
  const { canvas, legend } = await lanternKit();
  const { bags, faults } = heapOf(legend, canvas.packetDrills, seeded(7));
  // Most ordinary bags are counted already when we come to the heap; what is odd about it comes through the hands.
  const ordinary = bags.filter(({ label, drills }) => {
    const line = legend.find(({ code }) => code === label);
    return line && drills === canvas.packetDrills && line.code !== faults.short.code;
  });
  const counted = new Set(ordinary.slice(0, Math.floor(bags.length * 0.6)));
  for (const { label } of counted) {
    const { line } = legend.find(({ code }) => code === label)!;
    await request.post(`/api/canvases/${DEMO.lantern}/bags`, { data: { id: crypto.randomUUID(), line } });
  }
  await page.goto(`/canvas/${DEMO.lantern}/checkin`);
  const field = page.getByLabel('Code on this bag');
  await expect(field).toBeFocused();
  for (const bag of bags.filter((each) => !counted.has(each))) {
    const words = bag.drills === canvas.packetDrills ? bag.label : `${bag.label} x ${bag.drills}`;
    await page.keyboard.insertText(words);
    await page.keyboard.press('Enter');
    await expect(field).toHaveValue('');
  }
  // Two hundred answers come one after the other.
  await expect(page.getByTestId('sentence')).toContainText('1 colour without a bag, 1 with too few drills', {
    timeout: 40_000,
  });
  await expect(page.getByTestId('sentence')).toContainText('1 bag not in the colour list.');
  await expect(page.getByText('1 bag to find')).toBeVisible();
  await page.getByRole('button', { name: 'Only what is missing' }).focus();
  await page.keyboard.press('Enter');
  const wall = page.getByRole('region', { name: 'The heap' });
  await expect(
    wall.getByRole('button', { name: new RegExp(`${faults.missing.code}.*No bag yet`) }),
  ).toBeVisible();
  await expect(
    wall.getByRole('button', { name: new RegExp(`${faults.short.code}.*46 missing`) }),
  ).toBeVisible();
  await expect(page.getByText(`${faults.stray} may be meant for it`)).toBeVisible();
  // All counted bags are kept.
  await page.reload();
  await expect(page.getByTestId('sentence')).toContainText('1 colour without a bag, 1 with too few drills');
});

test('a sheet of 90 colours pasted from a spreadsheet checks clean', async ({ page, request }) => {
  const id = crypto.randomUUID();
  const rows = Array.from(
    { length: 90 },
    (_, i) => `${i + 1}\t\t${1000 + 7 * i}\tColour ${i + 1}\t\t\t${100 + i}\t1`,
  );
  // 90 colours of 100 … 189 drills: 90 × 144.5 = 13,005 drills, on 153 × 85 cells.
  const data = { id, title: 'Ninety', shape: 'round', pitchMm: 2.8, width: 153, height: 85 };
  expect((await request.post('/api/canvases', { data })).status()).toBe(201);
  await page.goto(`/canvas/${id}/checkin/sheet`);
  await page
    .getByLabel('Or paste the rows here')
    .fill(['Key\tSymbol\tCode\tName\tHex\tFinish\tDrills\tPackets', ...rows].join('\n'));
  await expect(page.getByText('90 colours')).toBeVisible();
  await page.getByRole('button', { name: 'Save this colour list' }).click();
  await page.getByRole('link', { name: 'Go on without one' }).click();
  await expect(page.getByText('90 bags to find')).toBeVisible();
  await expect(page.getByText('does not quite add up')).toHaveCount(0);
});

/** A canvas with so many colours; the code of one is the key number of another where `twins` says so. */
async function manyColours(
  request: APIRequestContext,
  title: string,
  codes: readonly string[],
): Promise<string> {
  const id = crypto.randomUUID();
  const data = { id, title, shape: 'square', pitchMm: 2.5, width: 100, height: 100 };
  expect((await request.post('/api/canvases', { data })).status()).toBe(201);
  const lines = codes.map((code, i) => ({
    keyNumber: String(i + 1),
    symbol: null,
    code,
    name: '',
    hex: null,
    finish: 'plain',
    neededDrills: 150,
    packets: 1,
  }));
  expect((await request.put(`/api/canvases/${id}/sheet`, { data: { lines } })).ok()).toBe(true);
  return id;
}
const bagsOf = async (request: APIRequestContext, id: string): Promise<{ label: string; line: number }[]> =>
  (await (await request.get(`/api/canvases/${id}/bags`)).json()).bags;

async function openHeap(page: Page, id: string): Promise<Locator> {
  await page.goto(`/canvas/${id}/checkin`);
  const field = page.getByLabel('Code on this bag');
  await expect(field).toBeFocused();
  return field;
}

test.describe('typing at the heap', () => {
  test('200 codes at 10 ms a key, as a scanner types, while every answer is held: none is lost, all in order', async ({
    page,
    request,
  }) => {
    test.setTimeout(180_000);
    const codes = Array.from({ length: 60 }, (_, i) => String(1000 + 41 * i));
    const id = await manyColours(request, 'Scanned', codes);
    // Answers are held back for the first second and a half, and are slow ever after.
    let held = true;
    await page.route('**/bags', async (route) => {
      if (route.request().method() === 'POST')
        await new Promise((done) => setTimeout(done, held ? 1500 : 20));
      held = false;
      await route.continue();
    });
    await openHeap(page, id);
    const typed = Array.from({ length: 200 }, (_, i) => codes[(i * 17) % 60]!);
    const keys = await page.context().newCDPSession(page);
    // Nobody waits for a key to be worked through: the next one comes ten milliseconds later in any case.
    const sent: Promise<unknown>[] = [];
    let next = performance.now();
    for (const code of typed) {
      for (const text of [...code, '\r']) {
        const key = text === '\r' ? 'Enter' : text;
        sent.push(keys.send('Input.dispatchKeyEvent', { type: 'keyDown', text, key }));
        sent.push(keys.send('Input.dispatchKeyEvent', { type: 'keyUp', key }));
        next += 10;
        await new Promise((done) => setTimeout(done, next - performance.now()));
      }
    }
    await Promise.all(sent);
    await expect.poll(async () => (await bagsOf(request, id)).length, { timeout: 120_000 }).toBe(200);
    expect((await bagsOf(request, id)).map(({ label }) => label)).toEqual(typed);
  });

  test('a code that is another colour’s key number is asked about, and the next codes go on meanwhile', async ({
    page,
    request,
  }) => {
    // 3 is the code of the first colour and the key number of the third.
    const id = await manyColours(request, 'Twins', ['3', '1041', '88']);
    const field = await openHeap(page, id);
    await page.keyboard.type('3\n1041\n88\n', { delay: 10 });
    await expect
      .poll(async () => (await bagsOf(request, id)).map(({ label }) => label))
      .toEqual(['1041', '88']);
    const question = page.getByRole('group', { name: 'Which colour is 3?' });
    await expect(question).toContainText('Not counted yet');
    // The question is still there after a reload, and the second choice is one key away.
    await page.reload();
    await expect(question).toBeVisible();
    await page.waitForTimeout(700);
    await field.press('ArrowDown');
    await expect.poll(async () => (await bagsOf(request, id)).map(({ line }) => line)).toEqual([2, 3, 3]);
    await expect(question).toHaveCount(0);
    // Once for the kit.
    await page.keyboard.type('3\n');
    await question.getByRole('button', { name: 'codes', exact: true }).click();
    await expect.poll(async () => (await bagsOf(request, id)).map(({ line }) => line)).toEqual([2, 3, 3, 1]);
    await page.reload();
    await expect(field).toBeFocused();
    await page.keyboard.type('3\n');
    await expect.poll(async () => (await bagsOf(request, id)).length).toBe(5);
    expect((await bagsOf(request, id))[4]).toMatchObject({ line: 1 });
  });

  test('amounts are understood or refused, never made a stray', async ({ page, request }) => {
    const id = await manyColours(request, 'Amounts', ['412', '88']);
    const field = await openHeap(page, id);
    await page.keyboard.type('412 x5\n88x140\n');
    await expect.poll(async () => (await bagsOf(request, id)).length).toBe(6);
    expect((await bagsOf(request, id)).map((bag) => bag.line)).toEqual([1, 1, 1, 1, 1, 2]);
    await page.keyboard.type('412 x 20\n');
    await expect(page.getByRole('alert')).toContainText('Are 20 the bags or the drills?');
    await expect(field).toHaveValue('412 x 20');
    await field.fill('412 x 450');
    await page.getByLabel('printed on the bag').check();
    await field.press('Enter');
    await expect
      .poll(async () => (await bagsOf(request, id)).at(-1))
      .toMatchObject({ how: 'nominal', drills: 450 });
  });

  test('every bag is listed under its colour, and is changed, moved, removed and brought back', async ({
    page,
    request,
  }) => {
    const id = await manyColours(request, 'Listed', ['412', '88']);
    await openHeap(page, id);
    await page.keyboard.type('412\n412 x 140\n');
    await expect(page.getByText('340 here of 150 needed')).toBeVisible();
    await page.getByText('Its bags, to look at and correct').click();
    const bags = page.getByRole('listitem').filter({ hasText: 'from the kit' });
    await expect(bags.nth(0)).toContainText('200 drills, as printed, from the kit');
    await expect(bags.nth(1)).toContainText(/140 drills, counted by hand.*Counted today at \d+:\d\d here/);
    await bags.nth(1).getByRole('button', { name: 'Edit' }).click();
    const form = page.getByRole('form', { name: 'Change this bag' });
    // With a slip in it nothing is saved, the first digits least of all.
    await form.getByLabel('Drills').press('Control+a');
    await form.getByLabel('Drills').pressSequentially('15o0');
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(form.getByRole('alert')).toHaveText('1 to 100,000');
    expect((await bagsOf(request, id))[1]).toMatchObject({ drills: 140 });
    await form.getByLabel('Drills').fill('120');
    await form.getByLabel('Where it came from').selectOption('bought');
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('320 here of 150 needed')).toBeVisible();
    await bags.nth(0).getByRole('button', { name: 'Edit' }).click();
    await form.getByLabel('Colour').selectOption({ label: '88, key 2' });
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('120 here of 150 needed')).toBeVisible();
    const left = page.getByRole('listitem').filter({ hasText: 'bought' });
    await left.getByRole('button', { name: 'Remove' }).click();
    await expect(page.getByText('0 here of 150 needed')).toBeVisible();
    await left.getByRole('button', { name: 'Bring back' }).click();
    await expect(page.getByText('120 here of 150 needed')).toBeVisible();
    expect(await bagsOf(request, id)).toMatchObject([
      { line: 2, drills: 200, origin: 'kit' },
      { line: 1, drills: 120, origin: 'bought' },
    ]);
    // Undo goes back the same way.
    await page.getByRole('button', { name: /^Undo: / }).click();
    await expect.poll(async () => (await bagsOf(request, id))[0]).toMatchObject({ line: 1 });
  });

  test('a stray is given to a colour, kept in the stash with a tint, or thrown out', async ({
    page,
    request,
  }) => {
    const id = await manyColours(request, 'Strays', ['412', '88']);
    await openHeap(page, id);
    await page.keyboard.type('x1\nx2\nx3\n');
    await expect(page.getByRole('heading', { name: 'Not in the colour list' })).toBeVisible();
    await page.getByLabel('Give x1 to a colour').selectOption('412');
    const stray = (label: string) => page.getByRole('listitem').filter({ hasText: label });
    await stray('x2').getByRole('button', { name: 'Keep in the stash' }).click();
    await page.getByLabel('Its tint').fill('#aa3377');
    await page.getByRole('button', { name: 'Keep with this tint' }).click();
    // A click on what moved meanwhile does nothing.
    await expect(stray('x2')).toHaveCount(0);
    await stray('x3').getByRole('button', { name: 'Throw out' }).click();
    await expect(stray('x3')).toHaveCount(0);
    await expect
      .poll(async () => (await bagsOf(request, id)).map((bag) => [bag.label, bag.line]))
      .toEqual([
        ['x1', 1],
        ['x2', null],
        ['x3', null],
      ]);
    const { items } = await (await request.get('/api/stash')).json();
    expect(items).toContainEqual(expect.objectContaining({ code: 'x2', hex: '#aa3377', drills: 200 }));
  });
});

test.describe('at the heap', () => {
  test('a word that fits two lines is asked about', async ({ page, request }) => {
    const id = await shelve(request, 'Two fit');
    // The symbol of line 1 becomes 2, which is the key number of line 2.
    const { lines } = await (await request.get(`/api/canvases/${id}/sheet`)).json();
    lines[0].symbol = '2';
    await request.put(`/api/canvases/${id}/sheet`, { data: { lines } });
    await page.goto(`/canvas/${id}/checkin`);
    const field = page.getByLabel('Code on this bag');
    await field.fill('2');
    await field.press('Enter');
    await page.getByRole('button', { name: /98, key 2/ }).click();
    await expect(page.getByText('200 here of 96 needed; bag 1 of 1')).toBeVisible();
  });

  test('another packet size is a key away, for one bag', async ({ page, request }) => {
    const id = await shelve(request, 'Sizes');
    await page.goto(`/canvas/${id}/checkin`);
    const field = page.getByLabel('Code on this bag');
    await field.fill('1204');
    await field.press('Alt+3');
    await expect(page.getByRole('button', { name: '1,000', exact: true })).toHaveAttribute(
      'aria-pressed',
      'true',
    );
    await field.press('Enter');
    await expect(page.getByText('1,000 here of 90 needed; bag 1 of 2, this one with 1,000')).toBeVisible();
    await expect(page.getByRole('button', { name: '200', exact: true })).toHaveAttribute(
      'aria-pressed',
      'true',
    );
  });

  test('a stray that looks like a misread is taken for its line', async ({ page, request }) => {
    const id = await shelve(request, 'Misread');
    await page.goto(`/canvas/${id}/checkin`);
    const field = page.getByLabel('Code on this bag');
    await field.fill('413');
    await field.press('Enter');
    await page.getByRole('button', { name: 'Take it for 412' }).click();
    await expect(page.getByText('200 here of 190 needed; bag 1 of 1')).toBeVisible();
    await expect(page.getByText('On no line of the sheet')).toHaveCount(0);
    await page.getByText('The arithmetic').click();
    await expect(page.getByText('To have 190 good ones: 190 ÷ (1 − 3.0 %) = 196.')).toBeVisible();
  });

  test('pieces thrown out change the trash share, and nonsense is refused in words', async ({
    page,
    request,
  }) => {
    const id = await shelve(request, 'Trash');
    await page.goto(`/canvas/${id}/checkin`);
    await page.getByText('Bad drills 3.0 %, from 200 drills').click();
    await page.getByLabel('Thrown out').fill('50');
    await page.getByLabel('of drills').fill('40');
    await page.getByRole('button', { name: 'Record' }).click();
    await expect(page.getByText('More drills were thrown out than you looked at.')).toBeVisible();
    await page.getByLabel('of drills').fill('1000');
    await page.getByRole('button', { name: 'Record' }).click();
    await expect(page.getByText('Bad drills 4.7 %, from 1,200 drills')).toBeVisible();
  });

  test('a counted bag is said aloud once the user asks for it', async ({ page, request }) => {
    const id = await shelve(request, 'Aloud');
    await page.addInitScript(() => {
      const spoken: string[] = [];
      Object.assign(window, { spoken });
      speechSynthesis.speak = (utterance) => void spoken.push(utterance.text);
    });
    await page.goto(`/canvas/${id}/checkin`);
    const field = page.getByLabel('Code on this bag');
    const count = async (code: string) => {
      await field.fill(code);
      await field.press('Enter');
      await expect(field).toHaveValue('');
    };
    const spoken = () => page.evaluate(() => (window as unknown as { spoken: string[] }).spoken);
    await count('412');
    expect(await spoken()).toEqual([]);
    await page.getByRole('button', { name: 'Say it aloud' }).click();
    await count('1204');
    await count('3717');
    // Said once it is counted.
    await expect
      .poll(spoken)
      .toEqual(['1 2 0 4: Enough. One bag still to find. Pot 3.', '3717 is not in the colour list.']);
  });

  test('a sheet that does not add up says so before the first bag', async ({ page, request }) => {
    const id = await shelve(request, 'Unsound sheet');
    await page.goto(`/canvas/${id}/checkin`);
    await expect(page.getByText('412: the list says 190, the chart has 192.')).toBeVisible();
    await expect(page.getByText('1204: the list says 90, the chart has 88.')).toBeVisible();
  });
});

test('a bag is counted by weight on the simulated scale', async ({ page, request }) => {
  // The scale takes its time to come to rest, more of it on a busy machine.
  const rest = { timeout: 40_000 };
  const id = await shelve(request, 'Weighed');
  await page.goto(`/canvas/${id}/checkin`);
  await page.getByLabel('Code on this bag').fill('412');
  await page.getByRole('button', { name: 'Weigh' }).click();
  await expect(page.getByRole('button', { name: 'Weigh the full bag' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Simulated scale' }).click();
  await page.getByRole('button', { name: 'Weigh these 50' }).click();
  await expect(page.getByText('Zero the scale first, with nothing on it.')).toBeVisible();
  await page.getByRole('button', { name: 'Zero the scale' }).click();
  await expect(page.getByText(/Zeroed at/)).toBeVisible(rest);
  await page.getByRole('button', { name: 'Weigh these 50' }).click();
  await expect(page.getByText(/50 weigh 0\.3\d+ g/)).toBeVisible(rest);
  await page.getByRole('button', { name: 'Weigh the empty bag' }).click();
  // 0.48 g on a display of 0.01 g: what it shows may be a step or two off, by noise and by the zero.
  await expect(page.getByText(/0\.(4[6-9]|50)\d g/)).toBeVisible(rest);
  await page.getByRole('button', { name: 'Weigh the full bag' }).click();
  const result = page.getByTestId('weighed');
  await expect(result).toContainText('give or take', rest);
  const [, drills, width] = /(\d+) drills, give or take (\d+)/.exec((await result.textContent()) ?? '')!;
  // The stand-in's bag holds about 200, within five of its standard deviations.
  expect(Math.abs(Number(drills) - 200)).toBeLessThan(30 + Number(width));
  const bags = async () => (await (await request.get(`/api/canvases/${id}/bags`)).json()).bags;
  await page.getByRole('button', { name: 'Count this bag for 412' }).click();
  await expect.poll(bags).toMatchObject([{ line: 1, how: 'weighed', drills: Number(drills) }]);
  expect((await bags())[0].spread).toBeGreaterThan(0);

  // The next bag goes against the same sample and empty bag, and errs with the first.
  await page.getByRole('button', { name: 'Weigh the full bag' }).click();
  await page.getByRole('button', { name: 'Count this bag for 412' }).click();
  await expect(page.getByTestId('weighed-so-far')).toContainText('2 bags weighed');
  await expect.poll(async () => (await bags()).length).toBe(2);
  const [one, two] = await bags();
  expect(one.shared).toHaveLength(2);
  expect(two.shared.map(({ source }: { source: string }) => source)).toEqual(
    one.shared.map(({ source }: { source: string }) => source),
  );
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByText('Its bags, to look').click();
  await expect(page.getByText(/weighed, give or take \d+, from the kit/)).toHaveCount(2);
});

test.describe('by a clock that is set', () => {
  test.use({ ownContext: true });
  test('a zero grows old while it lies there, and is asked for again', async ({ page, request }) => {
    const id = await shelve(request, 'Old zero');
    await page.clock.install();
    await page.goto(`/canvas/${id}/checkin`);
    await page.getByRole('button', { name: 'Weigh' }).click();
    await page.getByRole('button', { name: 'Zero the scale' }).click();
    await page.getByLabel('What 50 weigh, in grams').fill('0.31');
    await page.getByLabel('Grams of the empty bag').fill('0.48');
    await page.clock.fastForward('03:00');
    await page.getByLabel('Grams of the full bag').fill('1.72');
    await expect(page.getByText('The zero is more than 2 minutes old')).toBeVisible();
    await expect(page.getByTestId('weighed')).toHaveCount(0);
    await page.getByRole('button', { name: 'Zero it again' }).click();
    await page.getByLabel('Grams of the full bag').fill('1.72');
    await expect(page.getByTestId('weighed')).toContainText('200 drills');
  });
});

test('a scale on a serial port speaks to the same reader', async ({ page, request }) => {
  const id = await shelve(request, 'Serial');
  await page.addInitScript(() => {
    // A stand-in for the port that the browser would hand out; it sends readings in awkward pieces.
    const pieces = ['W +L', '0 g S', '\r\nnoise\nW +', 'L0 g S\n'];
    (window as unknown as { load: string }).load = '12.4';
    const piece = (n: number) =>
      pieces[n % pieces.length]!.replace('L', (window as unknown as { load: string }).load);
    const readable = () => {
      let timer: ReturnType<typeof setInterval>;
      let next = 0;
      return new ReadableStream({
        start(controller) {
          timer = setInterval(() => controller.enqueue(new TextEncoder().encode(piece(next++))), 30);
        },
        cancel: () => clearInterval(timer),
      });
    };
    const port = { open: async () => {}, close: async () => {}, readable: readable() };
    Object.defineProperty(navigator, 'serial', { value: { requestPort: async () => port } });
  });
  await page.goto(`/canvas/${id}/checkin`);
  await page.getByRole('button', { name: 'Weigh' }).click();
  await page.getByRole('button', { name: 'My scale' }).click();

  await expect(page.getByText(/12\.4 g steady/)).toBeVisible();
  await page.getByRole('button', { name: 'Zero the scale' }).click();
  await expect(page.getByText(/Zeroed at/)).toBeVisible();
  await page.getByRole('button', { name: 'Weigh these 50' }).click();
  await expect(page.getByText('The sample weighs nothing on this scale.')).toBeVisible();
  await page.evaluate(() => {
    (window as unknown as { load: string }).load = '12.7';
  });
  await expect(page.getByText(/12\.7 g steady/)).toBeVisible();
  await page.getByRole('button', { name: 'Weigh these 50' }).click();
  await expect(page.getByText('50 weigh 0.300 g')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByLabel('Code on this bag')).toBeFocused();
});

test('a bag is counted by the grams that a display shows, and no stand-in is offered in a real record', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Typed grams');
  await page.addInitScript(() =>
    document.addEventListener('DOMContentLoaded', () => delete document.documentElement.dataset.simulated),
  );
  await page.goto(`/canvas/${id}/checkin`);
  await page.getByLabel('Code on this bag').fill('412');
  await page.getByRole('button', { name: 'Weigh' }).click();
  await expect(page.getByRole('button', { name: 'Simulated scale' })).toHaveCount(0);
  // Worked by hand: 50 weigh 0.31 g, so (1.72 − 0.48) ÷ 0.0062 = 200 drills.
  await page.getByRole('button', { name: 'Zero the scale' }).click();
  await page.getByLabel('What 50 weigh, in grams').fill('0,31');
  await page.getByLabel('Grams of the empty bag').fill('0.48');
  await page.getByLabel('Grams of the full bag').fill('99999');
  await expect(page.getByText('0 to 5,000 g')).toBeVisible();
  await page.getByLabel('Grams of the full bag').fill('1,72');
  await expect(page.getByTestId('weighed')).toContainText('200 drills, give or take');
  await page.getByRole('button', { name: 'Count this bag for 412' }).click();
  await expect
    .poll(async () => (await bagsOf(request, id))[0])
    .toMatchObject({ how: 'weighed', drills: 200 });
});
