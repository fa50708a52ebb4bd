import { Matrix, solve } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { homographyTo, inverseOf, mapped, type QuadCorners } from '../../../src/core/view/projective';

const TILTED: QuadCorners = [
  [10, 20],
  [210, 35],
  [190, 180],
  [-5, 150],
];

describe('the map of a rectangle onto four corners', () => {
  it('takes corner to corner', () => {
    const map = homographyTo(TILTED, 40, 30);
    for (const [i, [x, y]] of (
      [
        [0, 0],
        [40, 0],
        [40, 30],
        [0, 30],
      ] as const
    ).entries()) {
      const [px, py] = mapped(map, x, y);
      expect(px).toBeCloseTo(TILTED[i]![0], 9);
      expect(py).toBeCloseTo(TILTED[i]![1], 9);
    }
  });

  it('is the one that eight linear equations give (ml-matrix)', () => {
    const from = [
      [0, 0],
      [40, 0],
      [40, 30],
      [0, 30],
    ] as const;
    // u (g x + h y + 1) = a x + b y + c, and so for v.
    const rows = from.flatMap(([x, y], i) => {
      const [u, v] = TILTED[i]!;
      return [
        [x, y, 1, 0, 0, 0, -u * x, -u * y],
        [0, 0, 0, x, y, 1, -v * x, -v * y],
      ];
    });
    const solved = solve(new Matrix(rows), Matrix.columnVector(TILTED.flat())).to1DArray();
    homographyTo(TILTED, 40, 30)
      .slice(0, 8)
      .forEach((value, i) => {
        expect(value).toBeCloseTo(solved[i]!, 9);
      });
  });

  it('keeps straight lines straight', () => {
    const map = homographyTo(TILTED, 40, 30);
    const [[ax, ay], [bx, by], [cx, cy]] = [mapped(map, 3, 4), mapped(map, 13, 11), mapped(map, 33, 25)];
    expect((bx - ax) * (cy - ay) - (by - ay) * (cx - ax)).toBeCloseTo(0, 6);
  });

  it('refuses three corners on a line', () => {
    const flat: QuadCorners = [
      [0, 0],
      [10, 10],
      [20, 20],
      [30, 30],
    ];
    expect(() => homographyTo(flat, 4, 3)).toThrow('Three of the corners lie on a line.');
    expect(() => inverseOf([1, 2, 0, 2, 4, 0, 0, 0, 1])).toThrow('Three of the corners lie on a line.');
  });
});

it('the map back undoes the map', () => {
  const map = homographyTo(TILTED, 40, 30);
  const back = inverseOf(map);
  expect(back[8]).toBe(1);
  for (const [x, y] of [
    [0, 0],
    [7, 3],
    [40, 30],
    [-2, 55],
  ] as const) {
    const [px, py] = mapped(map, x, y);
    const [bx, by] = mapped(back, px, py);
    expect(bx).toBeCloseTo(x, 8);
    expect(by).toBeCloseTo(y, 8);
  }
});
