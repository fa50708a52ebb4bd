import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { cloth, DEMO, expect, test } from './bench';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

const STATIONS = [
  'checkin',
  'kitup',
  'kitup/walk',
  'kitup/labels',
  'kitup/symbols',
  'chart',
  'sections',
  'sections/cut',
  'sections/cover',
  'sections/pull',
  'placing',
  'bench',
  'progress',
  'finish',
  'checkin/sheet',
  'checkin/facts',
  'checkin/request',
  'checkin/inspection',
  'checkin/packing',
  'chart/kind',
  'chart/repair',
  'chart/panels',
  'chart/photos',
  'chart/photos/colours',
  'chart/read',
];
const VIEWS = [
  '/',
  '/new',
  '/stash',
  '/log',
  '/storage',
  '/tips',
  '/stitches',
  '/backups',
  '/glossary',
  ...STATIONS.map((station) => `/canvas/${DEMO.kingfisher}/${station}`),
];

const SIZES = [
  ['a desk', 1280, 800],
  ['a tablet', 820, 1180],
  ['a phone', 390, 844],
  ['the smallest screen', 320, 640],
] as const;

/** How much of the page moved, and how far, since it began to load. */
function layoutShift(): Promise<number> {
  return new Promise((resolve) => {
    const sum = (list: PerformanceObserverEntryList) =>
      list
        .getEntries()
        .reduce((total, entry) => total + (entry as PerformanceEntry & { value: number }).value, 0);
    new PerformanceObserver((list) => resolve(sum(list))).observe({ type: 'layout-shift', buffered: true });
    // Nobody is called where nothing moved.
    setTimeout(() => resolve(0), 200);
  });
}

// One by one they would be the tail of the whole run, on one of two browsers.
test.describe.configure({ mode: 'parallel' });

for (const view of VIEWS) {
  test(`${view.split('/').slice(3).join('/') || view} has no fault that axe can find, and fits every screen`, async ({
    page,
  }) => {
    await page.goto(view);
    await page.waitForLoadState('networkidle');
    // Good is up to 0.1 (Web Vitals, Cumulative Layout Shift): nothing that is aimed at moves from under a finger.
    expect(await page.evaluate(layoutShift)).toBeLessThanOrEqual(0.1);
    await page.evaluate(AXE);
    const faults = (of: { type: 'tag' | 'rule'; values: string[] }) =>
      page.evaluate(async (runOnly) => {
        const { axe } = window as unknown as { axe: typeof import('axe-core') };
        // None of these rules asks for style sheets ahead.
        const { violations } = await axe.run({ runOnly, resultTypes: ['violations'], preload: false });
        return violations.map((each) => `${each.id}: ${each.nodes[0]?.html}`);
      }, of);
    const rules = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa', 'best-practice'];
    expect(await faults({ type: 'tag', values: rules })).toEqual([]);
    // The structure is the same in both lights; only colours differ.
    await page.getByRole('button', { name: 'Evening light' }).click();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening');
    expect(await faults({ type: 'rule', values: ['color-contrast'] })).toEqual([]);
    // A phone would begin a code with a capital letter, and correct it to a word.
    const codes = page.locator('.field.number:is(textarea, [inputmode="text"], :not([inputmode], select))');
    expect(
      await codes.evaluateAll((all) => all.filter((code) => !code.getAttribute('autocapitalize')).length),
    ).toBe(0);
    const over = () =>
      page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    for (const [name, width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      await expect.poll(over, { message: `scrolls sideways on ${name}` }).toBeLessThanOrEqual(0);
    }
    // On the smallest screen a word at its edge has room for its sentence too.
    for (const word of await page.locator('button.cursor-help:visible').all()) {
      await word.click();
      await expect(page.getByRole('tooltip').filter({ visible: true })).toHaveCount(1);
      expect(await over(), `${await word.textContent()} is explained`).toBeLessThanOrEqual(0);
      await word.press('Escape');
    }
    // Twice as large, for 200 % of 1280 × 800 are 640 × 400 pixels of CSS; spaced as WCAG 2.2 has it, 1.4.12; without motion.
    await page.emulateMedia({ reducedMotion: 'reduce' });
    await page.setViewportSize({ width: 640, height: 400 });
    await page.evaluate(() => {
      const wide = new CSSStyleSheet();
      wide.replaceSync(
        '* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important; }',
      );
      document.adoptedStyleSheets = [wide];
    });
    await expect.poll(over, { message: 'scrolls sideways where text is spaced wide' }).toBeLessThanOrEqual(0);
    expect(await page.evaluate(() => document.getAnimations().length)).toBe(0);
  });
}

test('the demo shelf shows three canvases with their pictures, also in the light that was chosen elsewhere', async ({
  page,
}) => {
  await page.goto('/new');
  await page.getByRole('button', { name: 'Evening light' }).click();
  await page.goto('/');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening');
  for (const [title, percent] of [
    ['Kingfisher at the Sluice', '41.'],
    ['Lantern Harbour', '0.00 %'],
    ['The Glasshouse', '9.00 %'],
  ] as const) {
    // Another test's canvas may have the title among its words.
    await page.goto(`/?find=${encodeURIComponent(title)}`);
    const heading = page.getByRole('heading', { name: title, exact: true });
    const entry = page.getByRole('listitem').filter({ has: heading });
    await expect(entry).toContainText(percent);
    const picture = entry.getByRole('img', { name: `${title}, finished` });
    await expect
      .poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth))
      .toBeGreaterThan(100);
  }
});

test('a canvas of 420,000 cells is drawn, panned and zoomed, and shows its symbols', async ({ page }) => {
  await page.goto(`/canvas/${DEMO.glasshouse}/chart`);
  const canvas = cloth(page);
  await canvas.waitFor();
  // Where another test left a colour in front, the others would be without their symbols.
  const all = page.getByRole('button', { name: 'All colours' });
  if (await all.isEnabled()) await all.click();
  const box = (await canvas.boundingBox())!;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  /** Different colours among the pixels of the cloth: none drawn gives one. */
  const colours = () =>
    canvas.evaluate((element: HTMLCanvasElement) => {
      const { data } = element.getContext('2d')!.getImageData(100, 100, 400, 300);
      return new Set(new Uint32Array(data.buffer)).size;
    });
  await expect.poll(colours).toBeGreaterThan(20);
  const whole = await canvas.screenshot();
  await page.mouse.move(middle.x, middle.y);
  for (let i = 0; i < 14; i++) await page.mouse.wheel(0, -200);
  await page.mouse.down();
  await page.mouse.move(middle.x - 200, middle.y - 100, { steps: 8 });
  await page.mouse.up();
  await expect.poll(colours).toBeGreaterThan(20);
  expect(whole.equals(await canvas.screenshot())).toBe(false);
  await expect(page.getByTestId('readout')).toContainText('Column');
  await page.getByRole('button', { name: 'Show all of it' }).click();
  await page.mouse.move(0, 0);
});

test.describe('by touch', () => {
  test.use({ hasTouch: true, viewport: { width: 820, height: 1180 } });

  test('two fingers bring the cloth nearer and one moves it', async ({ page }) => {
    await page.goto(`/canvas/${DEMO.kingfisher}/chart`);
    const canvas = cloth(page);
    await canvas.waitFor();
    const box = (await canvas.boundingBox())!;
    const centre = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    const cdp = await page.context().newCDPSession(page);
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: { x: number; y: number }[]) =>
      cdp.send('Input.dispatchTouchEvent', {
        type,
        touchPoints: points.map((point, id) => ({ ...point, id })),
      });
    const columnAt = async () => {
      await page.touchscreen.tap(box.x + 120, centre.y);
      const text = (await page.getByTestId('readout').textContent()) ?? '';
      return Number(/Column (\d+)/.exec(text)?.[1]);
    };
    await page.touchscreen.tap(centre.x, centre.y);
    await expect(page.getByTestId('readout')).toContainText('Column 6');
    const apart = (gap: number) => [
      { x: centre.x - gap, y: centre.y },
      { x: centre.x + gap, y: centre.y },
    ];
    await touch('touchStart', apart(60));
    for (const gap of [90, 130, 180, 240]) await touch('touchMove', apart(gap));
    await touch('touchEnd', []);
    const near = await columnAt();
    expect(near).toBeGreaterThan(20);
    await touch('touchStart', [centre]);
    for (const shift of [30, 60, 120]) await touch('touchMove', [{ x: centre.x + shift, y: centre.y }]);
    await touch('touchEnd', []);
    expect(await columnAt()).toBeLessThan(near);
  });
});
