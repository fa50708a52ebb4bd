import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  cellAt,
  crispScale,
  fitCamera,
  followRect,
  keepInSight,
  panBy,
  reveal,
  visibleCells,
  zoomAbout,
} from '../../../src/core/view/camera';

const view = { width: 800, height: 600 };
const cloth = { width: 120, height: 160 };
const camera = fc.record({
  scale: fc.double({ min: 0.5, max: 100, noNaN: true }),
  left: fc.double({ min: -50, max: 100, noNaN: true }),
  top: fc.double({ min: -50, max: 100, noNaN: true }),
});

describe('camera', () => {
  it('fits a rectangle into the middle of the view', () => {
    const fitted = fitCamera({ x: 0, y: 0, ...cloth }, view, 20);
    expect(fitted.scale).toBeCloseTo(560 / 160, 10);
    expect((0 - fitted.top) * fitted.scale).toBeCloseTo(20, 8);
    expect((60 - fitted.left) * fitted.scale).toBeCloseTo(400, 8);
  });

  it('keeps the point under the fingers where it is while zooming', () => {
    fc.assert(
      fc.property(
        camera,
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        fc.integer({ min: 0, max: 800 }),
        (from, factor, px) => {
          const to = zoomAbout(from, factor, px, 100, 0.1);
          expect(to.left + px / to.scale).toBeCloseTo(from.left + px / from.scale, 6);
          expect(to.top + 100 / to.scale).toBeCloseTo(from.top + 100 / from.scale, 6);
        },
      ),
    );
  });

  it('stops at the least and the greatest scale', () => {
    expect(zoomAbout({ scale: 10, left: 0, top: 0 }, 1000, 0, 0, 1).scale).toBe(160);
    expect(zoomAbout({ scale: 10, left: 0, top: 0 }, 0.0001, 0, 0, 1).scale).toBe(1);
  });

  it('pans by pixels and back', () => {
    fc.assert(
      fc.property(camera, fc.integer({ min: -500, max: 500 }), (from, dx) => {
        const back = panBy(panBy(from, dx, -dx), -dx, dx);
        expect(back.left).toBeCloseTo(from.left, 6);
        expect(back.top).toBeCloseTo(from.top, 6);
      }),
    );
  });

  it('never loses the cloth', () => {
    fc.assert(
      fc.property(camera, (wild) => {
        const kept = keepInSight({ ...wild, left: wild.left * 50 }, cloth, view);
        const seen = visibleCells(kept, view, cloth);
        expect(seen.width).toBeGreaterThan(0);
        expect(seen.height).toBeGreaterThan(0);
      }),
    );
  });

  it('finds the cell under a point, and none beside the cloth', () => {
    const at = { scale: 10, left: 5, top: 2 };
    expect(cellAt(at, 0, 0, cloth)).toEqual({ x: 5, y: 2 });
    expect(cellAt(at, 19, 10, cloth)).toEqual({ x: 6, y: 3 });
    expect(cellAt({ scale: 10, left: -1, top: 0 }, 5, 5, cloth)).toBeNull();
  });

  it('sees only cells of the cloth', () => {
    expect(visibleCells({ scale: 10, left: -5, top: 150 }, view, cloth)).toEqual({
      x: 0,
      y: 150,
      width: 75,
      height: 10,
    });
  });

  it('scrolls no farther than needed to show a cell', () => {
    const still = { scale: 10, left: 0, top: 0 };
    expect(reveal(still, 10, 10, view)).toEqual(still);
    const moved = reveal(still, 100, 10, view);
    expect(cellAt(moved, 799, 0, cloth)!.x).toBe(102);
    fc.assert(
      fc.property(
        camera,
        fc.integer({ min: 0, max: 119 }),
        fc.integer({ min: 0, max: 159 }),
        (from, x, y) => {
          const seen = reveal(from, x, y, view);
          expect((x - seen.left) * seen.scale).toBeGreaterThanOrEqual(-1e-6);
          expect((x + 1 - seen.left) * seen.scale).toBeLessThanOrEqual(view.width + 1e-6);
          expect((y + 1 - seen.top) * seen.scale).toBeLessThanOrEqual(view.height + 1e-6);
        },
      ),
    );
  });
});

describe('where squares are drawn one by one', () => {
  it('they are whole pixels wide, from 12 on', () => {
    expect([0.4, 11.9, 12, 12.4, 12.6, 99.5].map(crispScale)).toEqual([0.4, 11.9, 12, 12, 13, 100]);
    const across = (columns: number) => fitCamera({ x: 0, y: 0, width: columns, height: 1 }, view, 20).scale;
    // 760 pixels for 40, 64 and 100 columns: 19; 11.875, as it is; 7.6.
    expect([40, 64, 100].map(across)).toEqual([19, 11.875, 7.6]);
    expect(across(50)).toBe(15);
    expect(across(1)).toBe(160);
  });

  it('fit in a view that is all margin too', () =>
    expect(fitCamera({ x: 0, y: 0, width: 10, height: 10 }, { width: 20, height: 20 }, 34).scale).toBe(0.1));
});

it('the picture goes with the hand', () => {
  const from = { scale: 10, left: 5, top: 7 };
  expect(panBy(from, 20, -30)).toEqual({ scale: 10, left: 3, top: 10 });
});

it('a quarter of the view stays on the canvas, whichever way it is pushed', () => {
  // 80 × 60 squares are in view.
  const pushed = (left: number, top: number) => keepInSight({ scale: 10, left, top }, cloth, view);
  expect(pushed(-1000, -1000)).toEqual({ scale: 10, left: -60, top: -45 });
  expect(pushed(1000, 1000)).toEqual({ scale: 10, left: 100, top: 145 });
  expect(pushed(12, 34)).toEqual({ scale: 10, left: 12, top: 34 });
});

it('a square is shown with two around it, or as many as there is room for', () => {
  const from = { scale: 10, left: 20, top: 20 };
  expect(reveal(from, 10, 10, view)).toEqual({ scale: 10, left: 8, top: 8 });
  expect(reveal(from, 110, 90, view)).toEqual({ scale: 10, left: 33, top: 33 });
  // The edge of the margin is near enough.
  expect(reveal(from, 22, 77, view)).toEqual(from);
  // Two squares across: half a square of margin.
  expect(reveal({ scale: 400, left: 0, top: 0 }, 5, 0, view).left).toBe(4.5);
});

it('the edge squares of the canvas are found, and none beyond them', () => {
  const at = { scale: 10, left: 0, top: 0 };
  expect(cellAt(at, 0, 0, cloth)).toEqual({ x: 0, y: 0 });
  expect(cellAt({ ...at, left: 119, top: 159 }, 9, 9, cloth)).toEqual({ x: 119, y: 159 });
  expect(cellAt({ ...at, left: 119 }, 10, 0, cloth)).toBeNull();
  expect(cellAt({ ...at, top: 159 }, 0, 10, cloth)).toBeNull();
  expect(cellAt({ ...at, top: -1 }, 0, 5, cloth)).toBeNull();
});

describe('what is followed', () => {
  const still = { scale: 20, left: 10, top: 10 };
  // 40 × 30 squares in view; the middle 28 × 21 are from 16 to 44 and from 14.5 to 35.5.
  it('moves nothing while it is in the middle of the view', () => {
    expect(followRect(still, { x: 16, y: 15, width: 4, height: 4 }, view, 20)).toEqual(still);
    expect(followRect(still, { x: 40, y: 31, width: 4, height: 4 }, view, 20)).toEqual(still);
  });

  it('comes just so far into it from any side', () => {
    const to = (x: number, y: number) => followRect(still, { x, y, width: 4, height: 4 }, view, 20);
    expect(to(15, 20)).toEqual({ ...still, left: 9 });
    expect(to(41, 20)).toEqual({ ...still, left: 11 });
    expect(to(20, 14).top).toBeCloseTo(9.5, 10);
    expect(to(20, 33).top).toBeCloseTo(11.5, 10);
  });

  it('is brought near, as far as it fits', () => {
    expect(followRect({ ...still, scale: 5 }, { x: 16, y: 15, width: 4, height: 4 }, view, 30).scale).toBe(
      30,
    );
    // Nearer already: it stays.
    expect(followRect({ ...still, scale: 50 }, { x: 16, y: 15, width: 4, height: 4 }, view, 30).scale).toBe(
      50,
    );
    // 70 squares across want 560 pixels, 8 a square; 60 down of 420 pixels 7.
    expect(followRect(still, { x: 0, y: 0, width: 70, height: 4 }, view, 30).scale).toBeCloseTo(8, 10);
    expect(followRect(still, { x: 0, y: 0, width: 4, height: 60 }, view, 30).scale).toBeCloseTo(7, 10);
    expect(followRect(still, { x: 0, y: 0, width: 4000, height: 4 }, view, 30).scale).toBe(1);
  });

  it('lies within the middle of the view afterwards, wherever the eye was', () => {
    const rect = fc.record({
      x: fc.nat(110),
      y: fc.nat(150),
      width: fc.integer({ min: 1, max: 8 }),
      height: fc.integer({ min: 1, max: 8 }),
    });
    fc.assert(
      fc.property(camera, rect, (from, what) => {
        const to = followRect(from, what, view, 20);
        const [left, right] = [(what.x - to.left) * to.scale, (what.x + what.width - to.left) * to.scale];
        const [top, bottom] = [(what.y - to.top) * to.scale, (what.y + what.height - to.top) * to.scale];
        expect(left).toBeGreaterThanOrEqual(120 - 1e-6);
        expect(right).toBeLessThanOrEqual(680 + 1e-6);
        expect(top).toBeGreaterThanOrEqual(90 - 1e-6);
        expect(bottom).toBeLessThanOrEqual(510 + 1e-6);
      }),
    );
  });
});
