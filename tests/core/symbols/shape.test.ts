import { describe, expect, it } from 'vitest';
import { checkInWords, likeInWords, togetherInWords } from '../../../src/core/symbols/advice';
import {
  darkLines,
  lightnessOf,
  likePairs,
  shadePairs,
  whereTogether,
} from '../../../src/core/symbols/check';
import { likeness, SHAPE_SIDE, shapeOf, turned } from '../../../src/core/symbols/shape';
import { DRAWING_SIDE, inkOfPicture, otsu, tracedPath } from '../../../src/core/symbols/trace';
import { chartOfRows, line } from '../samples';

const SIDE = 48;

/** A symbol painted by a rule of x and y from −1 to 1. */
function painted(inked: (x: number, y: number) => boolean) {
  const pixels = Float32Array.from({ length: SIDE * SIDE }, (_, i) =>
    inked(((i % SIDE) + 0.5) / (SIDE / 2) - 1, (Math.floor(i / SIDE) + 0.5) / (SIDE / 2) - 1) ? 1 : 0,
  );
  return shapeOf(pixels, SIDE)!;
}
const compare = (a: ReturnType<typeof painted>, b: ReturnType<typeof painted>) =>
  likeness(turned(a), turned(b));

const disc = painted((x, y) => Math.hypot(x, y) < 0.6);
const ring = painted((x, y) => Math.hypot(x, y) < 0.6 && Math.hypot(x, y) > 0.42);
const dot = painted((x, y) => Math.hypot(x, y) < 0.1);
const bar = painted((x, y) => Math.abs(x) < 0.6 && Math.abs(y) < 0.09);
const slash = painted((x, y) => Math.abs(x + y) < 0.12 && Math.abs(x) < 0.5);
const corner = painted(
  (x, y) => (x < -0.4 && x > -0.6 && Math.abs(y) < 0.6) || (y > 0.4 && y < 0.6 && Math.abs(x) < 0.6),
);
const mirrored = painted(
  (x, y) => (x > 0.4 && x < 0.6 && Math.abs(y) < 0.6) || (y > 0.4 && y < 0.6 && Math.abs(x) < 0.6),
);

describe('the shape of a symbol', () => {
  it('is nothing where there is no ink', () =>
    expect(shapeOf(new Float32Array(SIDE * SIDE), SIDE)).toBeNull());

  it('does not depend on where in its cell it stands', () => {
    const moved = painted((x, y) => Math.hypot(x - 0.3, y + 0.25) < 0.6);
    expect(compare(disc, moved).likeness).toBeGreaterThan(0.98);
  });

  it('is alike to itself, to a ring as its outline, and less to a small dot', () => {
    expect(compare(disc, disc).likeness).toBeCloseTo(1, 3);
    expect(compare(disc, ring)).toMatchObject({ turn: 'filled' });
    expect(compare(disc, ring).likeness).toBeGreaterThan(0.8);
    expect(compare(bar, ring).likeness).toBeLessThan(0.7);
    expect(compare(disc, dot).likeness).toBeLessThan(0.9);
    expect(compare(disc, dot).likeness).toBeGreaterThan(compare(disc, bar).likeness);
  });

  it('is known again mirrored or turned', () => {
    // Common practice, no source: a bracket and its mirror image, a dash and a slash are mixed up.
    expect(compare(corner, mirrored)).toMatchObject({ turn: 'mirrored', likeness: expect.closeTo(0.97, 1) });
    expect(compare(bar, slash)).toMatchObject({ turn: 'turned' });
    expect(compare(bar, slash).likeness).toBeGreaterThan(0.8);
    expect(compare(bar, disc).likeness).toBeLessThan(0.6);
  });

  it('is known again upside down and turned by a quarter or a half, and said so', () => {
    // Like no turn of itself: a bar with one arm above and a longer one in the middle.
    const inked = (x: number, y: number) =>
      (x > -0.5 && x < -0.3 && Math.abs(y) < 0.7) ||
      (y > -0.7 && y < -0.5 && x > -0.5 && x < 0.2) ||
      (Math.abs(y) < 0.1 && x > -0.5 && x < 0.5);
    const upright = painted(inked);
    expect(
      compare(
        upright,
        painted((x, y) => inked(x, -y)),
      ),
    ).toMatchObject({ turn: 'upside down' });
    expect(
      compare(
        upright,
        painted((x, y) => inked(-x, y)),
      ),
    ).toMatchObject({ turn: 'mirrored' });
    for (const other of [
      painted((x, y) => inked(-x, -y)),
      painted((x, y) => inked(y, -x)),
      painted((x, y) => inked(-y, x)),
    ]) {
      expect(compare(upright, other)).toMatchObject({ turn: 'turned' });
      expect(compare(upright, other).likeness).toBeGreaterThan(0.8);
    }
    // Nobody lays a canvas before them corner first: by 135° a symbol is another one.
    const r = Math.SQRT1_2;
    const corner = painted((x, y) => inked(-r * (x + y), r * (x - y)));
    expect(compare(upright, corner).likeness).toBeLessThan(0.7);
  });

  it('is the same whichever of the two comes first', () => {
    for (const [a, b] of [
      [disc, ring],
      [corner, mirrored],
      [bar, slash],
    ] as const)
      expect(compare(a, b).likeness).toBeCloseTo(compare(b, a).likeness, 1);
  });

  it('has as many values as its side asks for', () => expect(disc.ink).toHaveLength(SHAPE_SIDE ** 2));
});

describe('the symbol check', () => {
  const legend = [
    line(1, { symbol: '(', hex: '#203050' }),
    line(2, { symbol: ')', hex: '#203458' }),
    line(3, { symbol: '●', hex: '#e0c060' }),
    line(4, { symbol: 'O', hex: '#ffffff' }),
    line(5, { symbol: '0', hex: '#c02020' }),
  ];
  const shapes = new Map([
    [1, corner],
    [2, mirrored],
    [3, disc],
  ]);

  it('ranks pairs by shape and tint, and takes what Unicode lists even without a picture of it', () => {
    const pairs = likePairs(legend, shapes);
    expect(pairs.map(({ lines }) => lines)).toEqual([
      [1, 2],
      [4, 5],
    ]);
    expect(pairs[0]).toMatchObject({ turn: 'mirrored', listed: false });
    expect(pairs[1]).toMatchObject({ listed: true, shape: 0 });
    const farTints = legend.map((each) => (each.line === 2 ? { ...each, hex: '#ffe0a0' } : each));
    expect(likePairs(farTints, shapes).map(({ lines }) => lines)).toEqual([[4, 5]]);
  });

  it('forgets the listing once a symbol is drawn anew', () => {
    const drawn = legend.map((each) => (each.line === 5 ? { ...each, drawing: 'M0 0L9 9L0 9Z' } : each));
    expect(likePairs(drawn, shapes).map(({ lines }) => lines)).toEqual([[1, 2]]);
  });

  it('counts where near colours touch', () => {
    // 1 and 2 touch across four borders: three between the rows, one in the lower row.
    const chart = chartOfRows('111', '22.', '12.');
    const pairs = shadePairs(legend, chart);
    expect(pairs).toHaveLength(1);
    expect(pairs[0]).toMatchObject({ lines: [1, 2], meetings: 4 });
    expect(shadePairs(legend, chartOfRows('1.2'))).toEqual([]);
    expect(shadePairs(legend, null)[0]).toMatchObject({ lines: [1, 2], meetings: 0 });
  });

  it('finds the block where two colours stand most together', () => {
    const rows = Array.from({ length: 12 }, (_, y) =>
      y < 10 ? `1111111111${'1'.repeat(4)}` : `111222222${'2'.repeat(5)}`,
    );
    expect(whereTogether(chartOfRows(...rows), [1, 2])).toEqual({
      x: 0,
      y: 10,
      width: 10,
      height: 2,
      drills: [6, 14],
    });
    expect(whereTogether(chartOfRows('11'), [1, 2])).toBeNull();
  });

  it('names dark tints, darkest first', () => {
    // CIE 15: L* of black is 0, of white 100; sRGB #777777 has Y = 0.1845, L* = 50.0 (from memory).
    expect(lightnessOf('#000000')).toBe(0);
    expect(lightnessOf('#ffffff')).toBeCloseTo(100, 6);
    expect(lightnessOf('#777777')).toBeCloseTo(50, 0);
    expect(
      darkLines([line(1, { hex: '#101020' }), line(2, { hex: '#f0f0f0' }), line(3, { hex: '#000000' })]),
    ).toEqual([3, 1]);
  });

  it('speaks plainly', () => {
    expect(checkInWords(0, 0, 0)).toBe('Every symbol of this kit is easy to tell apart.');
    expect(checkInWords(1, 2, 1)).toBe(
      '1 pair of symbols is easily mixed up; 2 pairs of colours a shade apart meet; 1 symbol needs the light pad.',
    );
    const [pair] = likePairs(legend, shapes);
    expect(likeInWords(pair!)).toBe(
      'Mirror images of each other. Their tints do not help: seen only side by side.',
    );
    expect(togetherInWords({ x: 150, y: 180, width: 10, height: 10, drills: [50, 13], section: 80 })).toBe(
      'Most together in columns 151–160, rows 181–190 (section 80): 50 and 13.',
    );
    expect(togetherInWords(null)).toContain('never stand close together');
  });
});

describe('a drawn symbol', () => {
  const raster = (inked: (x: number, y: number) => boolean) =>
    Float32Array.from({ length: DRAWING_SIDE ** 2 }, (_, i) =>
      inked(i % DRAWING_SIDE, Math.floor(i / DRAWING_SIDE)) ? 1 : 0,
    );

  /** Area of a path of straight lines by the shoelace rule; rings that run the other way are holes. */
  const areaOf = (path: string) =>
    path
      .split('Z')
      .filter((ring) => ring !== '')
      .reduce((sum, ring) => {
        const points = [...ring.matchAll(/(\d+(?:\.\d+)?) (\d+(?:\.\d+)?)/g)].map(([, x, y]) => [
          Number(x),
          Number(y),
        ]);
        return (
          sum +
          points.reduce((area, [x, y], i) => {
            const [nx, ny] = points[(i + 1) % points.length]!;
            return area + (x! * ny! - nx! * y!) / 2;
          }, 0)
        );
      }, 0);

  it('becomes an outline of the same area, holes left out', () => {
    // A square of 32 × 32 of 64 × 64 cells is a quarter of 100 × 100; with a hole of 16 × 16 three sixteenths.
    const square = tracedPath(raster((x, y) => x >= 16 && x < 48 && y >= 16 && y < 48))!;
    expect(Math.abs(areaOf(square))).toBeCloseTo(2500, -2);
    const frame = tracedPath(
      raster((x, y) => x >= 16 && x < 48 && y >= 16 && y < 48 && !(x >= 24 && x < 40 && y >= 24 && y < 40)),
    )!;
    expect(Math.abs(areaOf(frame))).toBeCloseTo(1875, -2);
    expect(frame.match(/M/g)).toHaveLength(2);
  });

  it('is none where nothing was drawn, and stays in its box where all was', () => {
    expect(tracedPath(raster(() => false))).toBeNull();
    const all = tracedPath(raster(() => true))!;
    expect(all).toMatch(/^[MLZ\d. ]+$/);
    for (const [number] of all.matchAll(/\d+(?:\.\d+)?/g)) expect(Number(number)).toBeLessThanOrEqual(100);
  });

  it('is cut out of a picture, dark on light or light on dark', () => {
    const grey = (dark: number, light: number) =>
      Float32Array.from({ length: DRAWING_SIDE ** 2 }, (_, i) => {
        const [x, y] = [i % DRAWING_SIDE, Math.floor(i / DRAWING_SIDE)];
        return x >= 16 && x < 48 && y >= 16 && y < 48 ? dark : light;
      });
    for (const picture of [grey(40, 210), grey(220, 90)]) {
      const ink = inkOfPicture(picture);
      expect(ink[32 * DRAWING_SIDE + 32]).toBe(1);
      expect(ink[2]).toBe(0);
    }
    // Two clean groups at 40 and 210: the level lies in the middle between them.
    expect(otsu(grey(40, 210))).toBeCloseTo(125, 0);
  });
});
