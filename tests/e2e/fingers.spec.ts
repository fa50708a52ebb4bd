import type { CDPSession } from '@playwright/test';
import { allSaved, cloth, expect, left, openBench, pointOf, shelve, test } from './bench';

const SECTION = { x: 0, y: 0, width: 20, height: 16 };

type Point = { x: number; y: number };
const touch = (
  cdp: CDPSession,
  type: 'touchStart' | 'touchMove' | 'touchEnd',
  points: Point[],
  radius = 11,
  /** When the hand did it, in seconds since 1970; without, when the browser hears of it. */
  timestamp?: number,
) =>
  cdp.send('Input.dispatchTouchEvent', {
    type,
    ...(timestamp === undefined ? {} : { timestamp }),
    touchPoints: points.map((point, id) => ({ ...point, id, radiusX: radius, radiusY: radius })),
  });

test.describe('fingers at the bench', () => {
  test.use({ hasTouch: true, viewport: { width: 820, height: 1180 } });

  test('a swipe, a pinch and a resting palm mark nothing; a wobbling tap is one drill', async ({
    page,
    request,
  }) => {
    const id = await shelve(request, 'Fingers');
    await openBench(page, id);
    const cdp = await page.context().newCDPSession(page);
    const point = await pointOf(page, SECTION, 8, 3);
    // A swipe: a move each 16 ms of the hand, however slow this machine is just now.
    const from = Date.now() / 1000;
    await touch(cdp, 'touchStart', [point], 11, from);
    for (let step = 1; step <= 10; step++) {
      await touch(cdp, 'touchMove', [{ x: point.x, y: point.y - step * 12 }], 11, from + step * 0.016);
      await page.waitForTimeout(16);
    }
    await touch(cdp, 'touchEnd', []);
    // A pinch: one finger first, the other a moment later, as hands do.
    await touch(cdp, 'touchStart', [point]);
    await page.waitForTimeout(60);
    await touch(cdp, 'touchStart', [point, { x: point.x + 80, y: point.y }]);
    for (let step = 1; step <= 6; step++) {
      await touch(cdp, 'touchMove', [
        { x: point.x - step * 8, y: point.y },
        { x: point.x + 80 + step * 8, y: point.y },
      ]);
      await page.waitForTimeout(16);
    }
    await touch(cdp, 'touchEnd', []);
    // A palm.
    await touch(cdp, 'touchStart', [point], 45);
    await page.waitForTimeout(500);
    await touch(cdp, 'touchEnd', []);
    await expect(left(page)).toHaveText('160 left here of 160');
    await page.getByRole('button', { name: 'Show all of it' }).tap();
    await page.waitForTimeout(300);
    // A tap that wobbles by 14 pixels.
    await touch(cdp, 'touchStart', [point]);
    for (const shift of [5, 9, 13]) await touch(cdp, 'touchMove', [{ x: point.x + shift, y: point.y + 3 }]);
    await touch(cdp, 'touchEnd', []);
    await expect(left(page)).toHaveText('159 left here of 160');
    // Twice within half a second is no lift.
    await page.touchscreen.tap(point.x, point.y);
    await page.touchscreen.tap(point.x, point.y);
    await expect(left(page)).toHaveText('159 left here of 160');
    await expect(page.getByText('This square is laid already.')).toBeVisible();
    await allSaved(page);
  });

  test('a drag after a short hold marks, a second finger takes it back, and a long press lifts', async ({
    page,
    request,
  }) => {
    const id = await shelve(request, 'Holds');
    await openBench(page, id);
    const cdp = await page.context().newCDPSession(page);
    const [from, to] = [await pointOf(page, SECTION, 4, 3), await pointOf(page, SECTION, 9, 3)];
    const drag = async () => {
      await touch(cdp, 'touchStart', [from]);
      await page.waitForTimeout(450);
      for (let step = 1; step <= 8; step++) {
        await touch(cdp, 'touchMove', [{ x: from.x + ((to.x - from.x) * step) / 8, y: from.y }]);
        await page.waitForTimeout(16);
      }
    };
    await drag();
    await expect(left(page)).toHaveText('154 left here of 160');
    await touch(cdp, 'touchStart', [to, { x: to.x, y: to.y + 120 }]);
    await expect(left(page)).toHaveText('160 left here of 160');
    await touch(cdp, 'touchEnd', []);
    await page.waitForTimeout(100);
    await drag();
    await touch(cdp, 'touchEnd', []);
    await expect(left(page)).toHaveText('154 left here of 160');
    await touch(cdp, 'touchStart', [from]);
    await page.waitForTimeout(450);
    await touch(cdp, 'touchEnd', []);
    await expect(left(page)).toHaveText('155 left here of 160');
    await allSaved(page);
    const { laid } = await (await request.get(`/api/canvases/${id}`)).json();
    expect(laid).toBe(5);
    // What was corrected at once did not pop off.
    const popped = await (await request.get(`/api/canvases/${id}/popped`)).json();
    expect(JSON.stringify(popped)).not.toContain('100');
  });
});

test('all of a colour laid by a double click lays one colour, and the next comes forward', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Double click');
  await openBench(page, id);
  await page.getByRole('button', { name: 'All of it laid' }).dblclick();
  await expect(left(page)).toHaveText('80 left here of 80');
  await expect(page.getByText('160 of 412 laid.')).toBeVisible();
  await allSaved(page);
  // The header goes along.
  await expect(page.locator('#percent-laid')).toHaveText('42.55');
  expect((await (await request.get(`/api/canvases/${id}`)).json()).laid).toBe(160);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(left(page)).toHaveText('160 left here of 160');
  await expect(page.locator('#percent-laid')).toHaveText('0.00');
});

test('a mouse drag that leaves the canvas and comes back marks nothing that it did not touch', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Round the edge');
  await openBench(page, id);
  const [out, back] = [await pointOf(page, SECTION, 3, 2), await pointOf(page, SECTION, 16, 2)];
  const box = (await cloth(page).boundingBox())!;
  await page.mouse.move(out.x, out.y);
  await page.mouse.down();
  await page.mouse.move(out.x, box.y - 40);
  await page.mouse.move(back.x, box.y - 40);
  await page.mouse.move(back.x, back.y);
  await page.mouse.up();
  await allSaved(page);
  const bitmap = await (await request.get(`/api/canvases/${id}/bitmap`)).body();
  const laid = Array.from({ length: 24 * 16 }, (_, cell) => cell).filter(
    (cell) => bitmap[cell >> 3]! & (1 << (cell & 7)),
  );
  expect(laid).toEqual([2 * 24 + 3, 2 * 24 + 16]);
});

test('a square beyond the section says where it is, with the way there', async ({ page, request }) => {
  const id = await shelve(request, 'Beyond');
  await openBench(page, id);
  const beyond = await pointOf(page, SECTION, 20, 3);
  await page.mouse.click(beyond.x, beyond.y);
  await page.getByRole('button', { name: 'Go to section 2' }).click();
  await expect(cloth(page)).toHaveAccessibleName(/^Section 2 of Beyond/);
});

test('a mouse that was let go over another window marks no further, and Esc gives a stroke up', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Let go elsewhere');
  await openBench(page, id);
  const cdp = await page.context().newCDPSession(page);
  const squares = [2, 3, 4, 9, 14];
  const points = await Promise.all(squares.map((x) => pointOf(page, SECTION, x, 3)));
  const mouse = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', point: Point, isDown: boolean) =>
    cdp.send('Input.dispatchMouseEvent', {
      type,
      ...point,
      button: isDown || type !== 'mouseMoved' ? 'left' : 'none',
      buttons: isDown ? 1 : 0,
      clickCount: type === 'mouseMoved' ? 0 : 1,
    });
  await mouse('mousePressed', points[0]!, true);
  await mouse('mouseMoved', points[1]!, true);
  await mouse('mouseMoved', points[2]!, true);
  await expect(left(page)).toHaveText('157 left here of 160');
  for (const point of points.slice(3)) await mouse('mouseMoved', point, false);
  await allSaved(page);
  await expect(left(page)).toHaveText('157 left here of 160');

  await mouse('mousePressed', points[3]!, true);
  await mouse('mouseMoved', points[4]!, true);
  await expect(left(page)).toHaveText('151 left here of 160');
  await page.keyboard.press('Escape');
  await expect(left(page)).toHaveText('157 left here of 160');
  await mouse('mouseMoved', points[3]!, true);
  await mouse('mouseReleased', points[3]!, false);
  await page.waitForTimeout(200);
  await expect(left(page)).toHaveText('157 left here of 160');
  const { laid } = await (await request.get(`/api/canvases/${id}`)).json();
  expect(laid).toBe(3);
});
