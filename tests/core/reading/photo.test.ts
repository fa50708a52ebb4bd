import Color from 'colorjs.io';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import { faultInCorners } from '../../../src/core/reading/homography';
import { labOfLight, lightField, litAs } from '../../../src/core/reading/light';
import {
  emptyChannels,
  emptyPlaces,
  shrunk,
  toLinear,
  toSrgb,
  valueAt,
  valuesAt,
} from '../../../src/core/reading/photo';
import { smoothField } from '../../../src/core/reading/smoothField';
import { homographyTo, inverseOf, mapped } from '../../../src/core/view/projective';

describe('a projective map', () => {
  it('is the plain stretch where the corners make a rectangle', () => {
    const map = homographyTo(
      [
        [10, 20],
        [50, 20],
        [50, 80],
        [10, 80],
      ],
      4,
      3,
    );
    expect(mapped(map, 1, 1)).toEqual([20, 40]);
    expect(map.slice(6).map(Math.abs)).toEqual([0, 0, 1]);
  });

  it('keeps straight lines straight: the middle lies where the diagonals cross', () => {
    const corners = [
      [100, 80],
      [900, 130],
      [820, 700],
      [60, 620],
    ] as const;
    const map = homographyTo(corners, 40, 30);
    const [[ax, ay], [bx, by], [cx, cy], [dx, dy]] = corners;
    const t =
      ((bx - ax) * (dy - by) - (by - ay) * (dx - bx)) / ((cx - ax) * (dy - by) - (cy - ay) * (dx - bx));
    const [x, y] = mapped(map, 20, 15);
    expect(x).toBeCloseTo(ax + t * (cx - ax), 6);
    expect(y).toBeCloseTo(ay + t * (cy - ay), 6);
    const back = mapped(inverseOf(map), x, y);
    expect(back[0]).toBeCloseTo(20, 8);
    expect(back[1]).toBeCloseTo(15, 8);
  });

  it('says what is wrong with corners', () => {
    const size = { width: 100, height: 100 };
    expect(
      faultInCorners(
        [
          [10, 10],
          [90, 12],
          [88, 90],
          [8, 92],
        ],
        size,
      ),
    ).toBeNull();
    expect(
      faultInCorners(
        [
          [10, 10],
          [8, 92],
          [88, 90],
          [90, 12],
        ],
        size,
      ),
    ).toContain('wrong way');
    expect(
      faultInCorners(
        [
          [10, 10],
          [88, 90],
          [90, 12],
          [8, 92],
        ],
        size,
      ),
    ).toContain('cross over');
    expect(
      faultInCorners(
        [
          [88, 90],
          [8, 92],
          [10, 10],
          [90, 12],
        ],
        size,
      ),
    ).toContain('turned');
    expect(
      faultInCorners(
        [
          [10, 10],
          [150, 12],
          [88, 90],
          [8, 92],
        ],
        size,
      ),
    ).toContain('outside');
    expect(
      faultInCorners(
        [
          [Number.NaN, 10],
          [90, 12],
          [88, 90],
          [8, 92],
        ],
        size,
      ),
    ).toContain('two numbers');
  });
});

describe('light', () => {
  it('follows the sRGB curve both ways', () => {
    // IEC 61966-2-1: middle grey of 18 % is 118 in 8 bits (from memory).
    expect(Math.round(toSrgb(0.18))).toBe(118);
    for (let value = 0; value < 256; value++) expect(toSrgb(toLinear(value))).toBeCloseTo(value, 2);
    // CIELAB of the sRGB primaries under D65, as handbook tables print them (from memory).
    const red = labOfLight(1, 0, 0);
    expect([53.24, 80.09, 67.2].map((part, i) => Math.abs(part - red[i]!) < 0.15)).toEqual([
      true,
      true,
      true,
    ]);
    expect(labOfLight(1, 1, 1)[0]).toBeCloseTo(100, 3);
  });

  it('has the CIELAB that another library reckons', () => {
    for (const [r, g, b] of [
      [0.2, 0.5, 0.1],
      [0.9, 0.02, 0.4],
      [0.03, 0.04, 0.05],
    ] as const) {
      const other = new Color('srgb-linear', [r, g, b]).to('lab-d65').coords as number[];
      labOfLight(r, g, b).forEach((value, i) => {
        expect(Math.abs(value - other[i]!)).toBeLessThan(0.02);
      });
    }
  });

  it('is averaged as light, not as numbers', () => {
    const data = Uint8Array.of(255, 255, 255, 255, 0, 0, 0, 255, 0, 0, 0, 255, 255, 255, 255, 255);
    const small = shrunk({ width: 2, height: 2, data }, 2);
    expect([small.width, small.height]).toEqual([1, 1]);
    expect(small.values).toHaveLength(4);
    expect(small.values[0]).toBeCloseTo(0.5, 6);
    expect(small.values[3]).toBeCloseTo(Math.SQRT1_2, 6);
    expect(valueAt(Float32Array.of(0, 1, 2, 3), 2, 2, 1, 1)).toBe(1.5);
    expect(valueAt(Float32Array.of(0, 1, 2, 3), 2, 2, -5, 9)).toBe(2);
  });

  it('lies between the pixels as that of the four around does, in every channel, and at the edge as the edge', () => {
    const random = seededRandom(3);
    const data = Uint8Array.from({ length: 7 * 5 * 4 }, () => Math.floor(256 * random.uniform()));
    const small = shrunk({ width: 7, height: 5, data }, 1);
    const places = emptyPlaces(60);
    for (let i = 0; i < 60; i++) {
      places.x[i] = -2 + 11 * random.uniform();
      places.y[i] = -2 + 9 * random.uniform();
    }
    const seen = emptyChannels(60);
    valuesAt(small, places, seen);
    seen.forEach((values, channel) => {
      const plane = small.values.filter((_, i) => i % 4 === channel);
      values.forEach((value, i) => {
        expect(value).toBeCloseTo(valueAt(plane, 7, 5, places.x[i]!, places.y[i]!), 5);
      });
    });
    // One pixel is the same all over.
    valuesAt(shrunk({ width: 1, height: 1, data: Uint8Array.of(255, 0, 0, 255) }, 1), places, seen);
    expect([...seen[0]].every((value) => value === 1)).toBe(true);
  });

  it('is found from cells whose colour is known, gain and veil apart', () => {
    const [columns, rows] = [24, 18];
    const cells = columns * rows;
    const meant = Float32Array.from({ length: cells * 3 }, (_, i) => 0.1 + 0.8 * (((i * 7919) % 101) / 100));
    const gain = (cell: number) => 0.5 + 0.4 * ((cell % columns) / columns);
    const seen = meant.map((value, i) => value * gain(Math.floor(i / 3)));
    const light = lightField(seen, ...eachOwn(meant), new Float32Array(cells).fill(1), columns, rows, 1);
    for (const cell of [0, 100, 215, 431]) {
      const back = litAs(light, cell, seen);
      for (let channel = 0; channel < 3; channel++)
        expect(Math.abs(back[channel]! - meant[cell * 3 + channel]!)).toBeLessThan(0.08);
    }
  });
});

/** As if every cell were the only one of its class. */
function eachOwn(meant: Float32Array): [Int32Array, [number, number, number][]] {
  const cells = meant.length / 3;
  return [
    Int32Array.from({ length: cells }, (_, cell) => cell),
    Array.from(
      { length: cells },
      (_, cell) => [...meant.subarray(cell * 3, cell * 3 + 3)] as [number, number, number],
    ),
  ];
}

describe('the light of a place', () => {
  const [columns, rows] = [30, 20];
  const cells = columns * rows;
  const trust = new Float32Array(cells).fill(1);
  const WHITE = [0.6, 0.5, 0.4];
  const tints = Float32Array.from({ length: cells * 3 }, (_, i) => 0.1 + 0.8 * (((i * 7919) % 101) / 100));
  const lit = (tint: (at: number) => number) =>
    Float32Array.from(tints, (_, at) => tint(at) * WHITE[at % 3]!);

  it('is not turned by a region that was taken for another colour', () => {
    const [BLUE, BROWN] = [
      [0.04, 0.04, 0.18],
      [0.21, 0.11, 0.15],
    ] as const;
    const inside = (at: number) => Math.floor(at / 3) % columns >= 15;
    const seen = lit((at) => (inside(at) ? BLUE[at % 3]! : tints[at]!));
    const meant = tints.map((tint, at) => (inside(at) ? BROWN[at % 3]! : tint));
    const light = lightField(seen, ...eachOwn(meant), trust, columns, rows, 1);
    const back = litAs(light, 10 * columns + 25, seen);
    // Blue stays far from the brown that it was taken for.
    expect(back[2] / back[0]).toBeGreaterThan(2.5);
    const [blue, brown] = [labOfLight(...back), labOfLight(...BROWN)];
    expect(Math.hypot(blue[1] - brown[1], blue[2] - brown[2])).toBeGreaterThan(15);
  });

  it('is told by what lies around a region that was taken for a lighter colour, not by the region', () => {
    const [DARK, LIGHT] = [
      [0.05, 0.14, 0.04],
      [0.11, 0.3, 0.09],
    ] as const;
    const inside = (cell: number) => Math.hypot((cell % columns) - 15, Math.floor(cell / columns) - 10) < 6;
    const others = [
      [0.8, 0.3, 0.1],
      [0.9, 0.9, 0.85],
      [0.1, 0.3, 0.7],
      [0.4, 0.4, 0.1],
    ] as const;
    const seen = new Float32Array(cells * 3);
    const classes = new Int32Array(cells);
    for (let cell = 0; cell < cells; cell++) {
      classes[cell] = inside(cell) ? 4 : (cell * 7) % 4;
      const is = inside(cell) ? DARK : others[classes[cell]!]!;
      for (let channel = 0; channel < 3; channel++) seen[cell * 3 + channel] = is[channel]! * WHITE[channel]!;
    }
    const middle = 10 * columns + 15;
    const lightness = (ownShare: number) =>
      labOfLight(
        ...litAs(lightField(seen, classes, [...others, LIGHT], trust, columns, rows, ownShare), middle, seen),
      )[0];
    const [dark, light] = [labOfLight(...DARK)[0], labOfLight(...LIGHT)[0]];
    expect(Math.abs(lightness(0) - dark)).toBeLessThan(2);
    // Where all count alike, the region draws the light to where it is what it was taken for.
    expect(lightness(1)).toBeGreaterThan((2 * dark + light) / 3);
  });

  it('has the colour of all the photograph, and a veil where white light lies over a region', () => {
    const veil = (at: number) => (Math.floor(at / 3) % columns >= 15 ? 0.2 : 0);
    const seen = lit((at) => tints[at]! + veil(at));
    const light = lightField(seen, ...eachOwn(tints), trust, columns, rows, 1);
    for (const [column, shine] of [
      [2, 0],
      [27, 0.2],
    ] as const) {
      const at = (10 * columns + column) * 3;
      for (let channel = 0; channel < 3; channel++) {
        expect(Math.abs(light.gain[at + channel]! / WHITE[channel]! - 1)).toBeLessThan(0.15);
        expect(Math.abs(light.veil[at + channel]! / WHITE[channel]! - shine)).toBeLessThan(0.05);
      }
    }
  });
});

describe('a field made smooth', () => {
  it('keeps a plane as it is, and does not hear a value that lies far off', () => {
    const [width, height] = [12, 9];
    const plane = (i: number) => 0.02 * (i % width) - 0.03 * Math.floor(i / width) + 0.5;
    const values = Float32Array.from({ length: width * height }, (_, i) => plane(i));
    values[40] = 9;
    const smooth = smoothField(values, new Float32Array(width * height).fill(1), width, height, 3);
    smooth.forEach((value, i) => {
      expect(Math.abs(value - plane(i))).toBeLessThan(0.06);
    });
  });

  it('goes on where nothing is known', () => {
    const smooth = smoothField(Float32Array.of(0.4, 9, 9, 9), Float32Array.of(1, 0, 0, 0), 4, 1, 1);
    expect([...smooth].map((value) => Math.round(value * 100) / 100)).toEqual([0.4, 0.4, 0.4, 0.4]);
  });
});
