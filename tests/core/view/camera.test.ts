import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  cellAt,
  fitCamera,
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
