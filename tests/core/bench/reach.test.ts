import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  cellsOfArea,
  cellsReached,
  cellsToShare,
  REACHES,
  reachesFor,
  snapped,
} from '../../../src/core/bench/reach';
import { countLaid, emptyBitmap, isLaid, setLaid } from '../../../src/core/cells/bitmap';
import { makeChart, plainCloth } from '../../../src/core/cells/chart';
import { isInside } from '../../../src/core/cells/rect';
import { chartOfRows } from '../samples';

const chart = chartOfRows('112111', '122211', '111211', '1111.1');
const whole = { x: 0, y: 0, width: 6, height: 4 };
const at = (x: number, y: number) => ({ x, y });
const on = (...places: [number, number][]) => places.map(([x, y]) => y * 6 + x).sort((a, b) => a - b);

describe('what a touch reaches', () => {
  const ground = { chart, section: whole };

  it('is the square alone, its run, its row or its region', () => {
    expect(cellsReached(ground, 'square', at(2, 1))).toEqual(on([2, 1]));
    expect(cellsReached(ground, 'run', at(2, 1))).toEqual(on([1, 1], [2, 1], [3, 1]));
    expect(cellsReached(ground, 'row', at(0, 0))).toEqual(on([0, 0], [1, 0], [3, 0], [4, 0], [5, 0]));
    expect(cellsReached(ground, 'region', at(2, 0))).toEqual(on([2, 0], [1, 1], [2, 1], [3, 1], [3, 2]));
  });

  it('never leaves the section', () => {
    const section = { x: 0, y: 0, width: 3, height: 2 };
    expect(cellsReached({ chart, section }, 'run', at(2, 1))).toEqual(on([1, 1], [2, 1]));
    expect(cellsReached({ chart, section }, 'region', at(0, 0))).toEqual(on([0, 0], [1, 0], [0, 1]));
  });

  it('holds the touched square, and only squares of its colour in its section', () => {
    const cells = fc.uint16Array({ minLength: 30, maxLength: 30, max: 2, size: 'max' });
    fc.assert(
      fc.property(cells, fc.nat(29), fc.constantFrom(...REACHES), (lines, touched, reach) => {
        const any = makeChart(6, 5, lines);
        // A section in two pieces.
        const section = {
          ...{ x: 0, y: 0, width: 6, height: 5 },
          rects: [
            { x: 0, y: 0, width: 4, height: 5 },
            { x: 4, y: 2, width: 2, height: 3 },
          ],
        };
        const place = at(touched % 6, Math.floor(touched / 6));
        fc.pre(isInside(section, place) && lines[touched] !== 0);
        const found = cellsReached({ chart: any, section }, reach, place);
        expect(found).toContain(touched);
        expect(found).toEqual([...new Set(found)].sort((a, b) => a - b));
        for (const cell of found) {
          expect(lines[cell]).toBe(lines[touched]);
          expect(isInside(section, at(cell % 6, Math.floor(cell / 6)))).toBe(true);
        }
      }),
    );
  });

  it('of an area is what lies between its corners, of the colour in front or of all', () => {
    const area = { x: 1, y: 0, width: 3, height: 2 };
    expect(cellsOfArea(ground, area, 2)).toEqual(on([2, 0], [1, 1], [2, 1], [3, 1]));
    expect(cellsOfArea(ground, { x: 4, y: 3, width: 9, height: 9 }, null)).toEqual(on([5, 3]));
    expect(cellsOfArea({ chart, section: { x: 0, y: 0, width: 2, height: 4 } }, area, null)).toEqual(
      on([1, 0], [1, 1]),
    );
  });
});

describe('a section in two pieces', () => {
  // The right piece begins higher than the left one.
  const section = {
    ...{ x: 0, y: 0, width: 6, height: 4 },
    rects: [
      { x: 0, y: 2, width: 3, height: 2 },
      { x: 3, y: 0, width: 3, height: 4 },
    ],
  };

  it('gives its squares in the order of the canvas', () => {
    const all = cellsOfArea({ chart, section }, whole, null);
    expect(all).toEqual([...all].sort((a, b) => a - b));
    expect(all).toHaveLength(17);
    const cloth = plainCloth(6, 4);
    expect(cellsToShare({ chart: cloth, section }, emptyBitmap(24), 0.5).lay).toEqual(
      on([3, 0], [4, 0], [5, 0], [3, 1], [4, 1], [5, 1], [0, 2], [1, 2], [2, 2]),
    );
    // A piece beside the area takes no part.
    expect(cellsOfArea({ chart, section }, { x: 0, y: 0, width: 3, height: 2 }, null)).toEqual([]);
  });
});

it('without a chart nothing reaches by colour', () => {
  expect(reachesFor(false)).toEqual(['square', 'row', 'area']);
  expect(reachesFor(true)).toEqual(REACHES);
});

describe('a touch of a hand that trembles', () => {
  const only =
    (...places: [number, number][]) =>
    ({ x, y }: { x: number; y: number }) =>
      places.some(([a, b]) => a === x && b === y);
  it('stays where it may be marked', () => expect(snapped(at(2, 2), only([2, 2], [2, 1]))).toEqual(at(2, 2)));
  it('finds the nearest one beside it', () => {
    expect(snapped(at(2, 2), only([3, 3], [2, 3]))).toEqual(at(2, 3));
    expect(snapped(at(2, 2), only([1, 1]))).toEqual(at(1, 1));
  });
  it('takes the upper, then the left one of two alike', () => {
    expect(snapped(at(2, 2), only([2, 3], [2, 1]))).toEqual(at(2, 1));
    expect(snapped(at(2, 2), only([3, 2], [1, 2]))).toEqual(at(1, 2));
    expect(snapped(at(2, 2), only([3, 2]))).toEqual(at(3, 2));
    expect(snapped(at(2, 2), only([3, 3], [3, 1]))).toEqual(at(3, 1));
  });
  it('goes no farther than one square', () => expect(snapped(at(2, 2), only([4, 2]))).toEqual(at(2, 2)));
});

describe('a share of a section without a chart', () => {
  const cloth = plainCloth(10, 4);
  const section = { x: 2, y: 1, width: 4, height: 2 };
  const laidAfter = (laid: ReturnType<typeof emptyBitmap>, share: number) => {
    const { lay, lift } = cellsToShare({ chart: cloth, section }, laid, share);
    const next = laid.slice();
    for (const cell of lay) setLaid(next, cell, true);
    for (const cell of lift) setLaid(next, cell, false);
    return next;
  };

  it('is reached exactly, from above, whatever was laid before, and nothing outside is touched', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(39), { maxLength: 40, size: 'max' }),
        fc.constantFrom(0, 0.25, 0.5, 0.75, 1),
        (before, share) => {
          const laid = emptyBitmap(40);
          for (const cell of before) setLaid(laid, cell, true);
          const next = laidAfter(laid, share);
          const inside = (cell: number) => isInside(section, at(cell % 10, Math.floor(cell / 10)));
          let count = 0;
          for (let cell = 0; cell < 40; cell++) {
            if (inside(cell)) count += isLaid(next, cell) ? 1 : 0;
            else expect(isLaid(next, cell)).toBe(isLaid(laid, cell));
          }
          expect(count).toBe(8 * share);
        },
      ),
    );
  });

  it('takes the upper rows first', () => {
    const half = laidAfter(emptyBitmap(40), 0.5);
    expect([12, 13, 14, 15].every((cell) => isLaid(half, cell))).toBe(true);
    expect(countLaid(half)).toBe(4);
  });
});
