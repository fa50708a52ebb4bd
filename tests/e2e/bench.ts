import { randomUUID } from 'node:crypto';
import { cp, rm } from 'node:fs/promises';
import {
  type APIRequestContext,
  type BrowserContext,
  type BrowserContextOptions,
  test as base,
  expect,
  type Locator,
  type Page,
} from '@playwright/test';
import { PNG } from 'pngjs';
import type { CellRect } from '../../src/core/cells/chart';
import { hexToRgb } from '../../src/core/colour/rgb';
import { fitCamera } from '../../src/core/view/camera';
import { freePort, startServer, stop, throwAwayDirectory } from './server';

/** The margin that the cloth keeps around what it frames, in CSS pixels. */
const FRAME_MARGIN = 34;

/** A browser context that one test after the other uses: what the browser loaded of the program stays, and nothing else. */
class KeptContext {
  private readonly origins = new Set<string>();

  constructor(readonly context: BrowserContext) {
    context.on('page', (page) =>
      page.on('framenavigated', (frame) => this.origins.add(new URL(frame.url()).origin)),
    );
  }

  /** Forgets what the test before left. @param page any page of the context */
  async clean(page: Page): Promise<void> {
    await this.context.clearCookies();
    const session = await this.context.newCDPSession(page);
    for (const origin of this.origins) {
      if (origin === 'null') continue;
      const storageTypes = 'cookies,indexeddb,local_storage,cache_storage,service_workers,file_systems';
      await session.send('Storage.clearDataForOrigin', { origin, storageTypes });
    }
    this.origins.clear();
    await session.detach();
  }
}

interface TestFixtures {
  quietConsole: string[];
  /** Whether a test has a context to itself, as one must that sets the clock: it stays set. */
  ownContext: boolean;
  kept: KeptContext;
}

interface WorkerFixtures {
  serverUrl: string;
  /** By the options they were made with. */
  keptContexts: Map<string, KeptContext>;
}

/** Page and requests against the worker's own server; any error in the page's console fails the test. */
export const test = base.extend<TestFixtures, WorkerFixtures>({
  ownContext: [false, { option: true }],
  keptContexts: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the fixtures that are wanted from this pattern
    async ({}, use) => {
      const kept = new Map<string, KeptContext>();
      await use(kept);
      for (const { context } of kept.values()) await context.close();
    },
    { scope: 'worker' },
  ],
  kept: async (
    { browser, keptContexts, serverUrl, ownContext, viewport, hasTouch, isMobile, contextOptions },
    use,
  ) => {
    const options: BrowserContextOptions = {
      baseURL: serverUrl,
      viewport,
      hasTouch,
      isMobile,
      ...contextOptions,
    };
    const key = JSON.stringify(options);
    const before = ownContext ? undefined : keptContexts.get(key);
    const kept = before ?? new KeptContext(await browser.newContext(options));
    if (!ownContext) keptContexts.set(key, kept);
    await use(kept);
    for (const page of kept.context.pages()) await page.close();
    if (ownContext) await kept.context.close();
  },
  context: ({ kept }, use) => use(kept.context),
  page: async ({ kept }, use) => {
    const page = await kept.context.newPage();
    await kept.clean(page);
    await use(page);
  },
  serverUrl: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the fixtures that are wanted from this pattern
    async ({}, use) => {
      const data = await throwAwayDirectory();
      await cp(process.env.OCULENT_TEST_TEMPLATE!, data, { recursive: true });
      const server = await startServer(data, await freePort());
      await use(server.url);
      await stop(server, 'SIGTERM');
      await rm(data, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  baseURL: ({ serverUrl }, use) => use(serverUrl),
  quietConsole: [
    async ({ page }, use) => {
      const faults: string[] = [];
      page.on('pageerror', (error) => faults.push(error.message));
      page.on('console', (message) => {
        // A refused request is logged by the browser itself; the tests look at what the page says of it.
        if (message.type() === 'error' && !message.text().startsWith('Failed to load resource'))
          faults.push(message.text());
      });
      await use(faults);
      expect(faults).toEqual([]);
    },
    { auto: true },
  ],
});
export { expect };

export const DEMO = {
  kingfisher: '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f01',
  lantern: '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f02',
  glasshouse: '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f03',
};

/** The sheet of the canvas that the tests bring along: 24 × 16 cells in stripes, one corner bare. */
export const SHEET = [
  'Key\tSymbol\tCode\tName\tHex\tFinish\tDrills\tPackets',
  '1\tA\t412\tMoss\t#4a7c3f\t\t190\t1',
  '2\t★\t98\tDusk\t#34406e\tmetallic\t96\t1',
  '3\t0\t1204\tStraw\t#e0c060\t\t90\t2',
].join('\n');
const COLOURS = ['#4a7c3f', '#34406e', '#e0c060'];

/** Legend line of a cell of that canvas; 0 in the bare corner of 4 × 2. */
export function lineAt(x: number, y: number): number {
  if (x >= 20 && y >= 14) return 0;
  return y < 8 ? 1 : y < 12 ? 2 : 3;
}

/** That canvas as PNG, with one pixel a cell. */
export function chartPng(
  paint: (x: number, y: number) => string | null = (x, y) => COLOURS[lineAt(x, y) - 1] ?? null,
): Buffer {
  const image = new PNG({ width: 24, height: 16 });
  for (let y = 0; y < 16; y++) {
    for (let x = 0; x < 24; x++) {
      const hex = paint(x, y);
      image.data.set(hex === null ? [0, 0, 0, 0] : [...hexToRgb(hex), 255], (y * 24 + x) * 4);
    }
  }
  return PNG.sync.write(image);
}

/** Puts a canvas with sheet and chart on the shelf through the API, for tests of a single station. */
export async function shelve(request: APIRequestContext, title: string, withChart = true): Promise<string> {
  const id = randomUUID();
  const made = await request.post('/api/canvases', {
    data: { id, title, shape: 'square', pitchMm: 2.5, width: 24, height: 16 },
  });
  expect(made.status()).toBe(201);
  const reading = await (
    await request.post('/api/sheet-readings', { data: SHEET, headers: { 'content-type': 'text/plain' } })
  ).json();
  expect((await request.put(`/api/canvases/${id}/sheet`, { data: { lines: reading.lines } })).ok()).toBe(
    true,
  );
  if (withChart) {
    const put = await request.put(`/api/canvases/${id}/chart`, {
      data: chartPng(),
      headers: { 'content-type': 'image/png' },
    });
    expect(put.ok()).toBe(true);
  }
  return id;
}

export function cloth(page: Page): Locator {
  return page.getByRole('application');
}

/** The point in the page where a cell lies while the cloth shows this frame. */
export async function pointOf(
  page: Page,
  frame: CellRect,
  x: number,
  y: number,
): Promise<{ x: number; y: number }> {
  const box = (await cloth(page).boundingBox())!;
  const camera = fitCamera(frame, box, FRAME_MARGIN);
  return {
    x: box.x + (x + 0.5 - camera.left) * camera.scale,
    y: box.y + (y + 0.5 - camera.top) * camera.scale,
  };
}

/** As long as a person looks before the next click: what came up under the pointer is not clicked sooner. */
export const look = (page: Page): Promise<void> => page.waitForTimeout(700);

/** Waits until every mark has been acknowledged. */
export async function allSaved(page: Page): Promise<void> {
  await expect(page.getByTestId('saved')).toContainText('Every mark is saved.');
}

/** How many drills of the colour in front are left to lay, as the slip says it. */
export const left = (page: Page): Locator => page.getByTestId('left-here');

/** Opens the bench of the canvas that the tests bring along, at its first section. */
export async function openBench(page: Page, id: string): Promise<void> {
  await page.goto(`/canvas/${id}/bench?section=1`);
  await cloth(page).waitFor();
  await expect(left(page)).toHaveText('160 left here of 160');
}
