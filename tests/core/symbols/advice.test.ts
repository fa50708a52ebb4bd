import { describe, expect, it } from 'vitest';
import type { LegendLine } from '../../../src/core/canvas/legend';
import { checkInWords, likeInWords, shadeInWords, togetherInWords } from '../../../src/core/symbols/advice';
import {
  darkLines,
  type LikePair,
  likePairs,
  shadePairs,
  whereTogether,
} from '../../../src/core/symbols/check';
import { skeleton } from '../../../src/core/symbols/confusables';
import { DRAWING_SIDE, inkOfPicture, otsu, tracedPath } from '../../../src/core/symbols/trace';
import { chartOfRows, line } from '../samples';

const NONE = new Map();
const listed = (...symbols: (string | null)[]) =>
  likePairs(
    symbols.map((symbol, i) => line(i + 1, { symbol })),
    NONE,
  ).map(({ lines }) => lines);

describe('symbols that are listed as alike', () => {
  // Common practice, no source: what a turned or mirrored canvas makes of each other.
  it.each(['69', 'pd', 'bq', 'bd', 'pq', 'bp', 'dq', 'un', 'MW', 'mw', 'ZN', 'zn', 'VΛ', 'AV', 'EƎ'])(
    '%s, whichever comes first',
    (twin) => {
      const [a, b] = [...twin] as [string, string];
      expect(listed(a, b)).toEqual([[1, 2]]);
      expect(listed(b, a)).toEqual([[1, 2]]);
    },
  );

  it('by Unicode, each sign by what it looks like', () => {
    // UTS #39, confusables.txt, version 13.0.0.
    expect([skeleton('0'), skeleton('O'), skeleton('1l'), skeleton('★')]).toEqual(['O', 'O', 'll', '★']);
    expect(listed('0', 'O')).toEqual([[1, 2]]);
    expect(listed('1', 'l')).toEqual([[1, 2]]);
  });

  it('and no others: not the same sign twice, not one without a symbol, not drawn ones', () => {
    expect(listed('A', 'A')).toEqual([]);
    expect(listed('6', 'p')).toEqual([]);
    expect(listed(null, null)).toEqual([]);
    expect(listed(null, '0')).toEqual([]);
    const drawn = (more: Partial<LegendLine>) => line(1, { symbol: '6', ...more });
    const nine = line(2, { symbol: '9' });
    expect(likePairs([drawn({}), nine], NONE)).toHaveLength(1);
    expect(likePairs([drawn({ drawing: 'M0 0L1 1Z' }), nine], NONE)).toEqual([]);
    expect(likePairs([nine, drawn({ drawing: 'M0 0L1 1Z' })], NONE)).toEqual([]);
    expect(
      likePairs([line(1, { symbol: '0' }), line(2, { symbol: 'O', drawing: 'M0 0L1 1Z' })], NONE),
    ).toEqual([]);
  });

  it('are the riskier the nearer their tints, and of a middling risk where a tint is not known', () => {
    const pair = (first: string | null, second: string | null) =>
      likePairs([line(1, { symbol: '6', hex: first }), line(2, { symbol: '9', hex: second })], NONE)[0]!;
    const [same, unknown, far] = [
      pair('#2f6f8f', '#2f6f8f'),
      pair(null, '#2f6f8f'),
      pair('#ffffff', '#2f6f8f'),
    ];
    // 0.8 by shape, half of which the tint may take away: exp(−ΔE00 ÷ 30), with 12 where it is not known.
    expect(same).toMatchObject({ difference: 0, risk: expect.closeTo(0.8, 9), listed: true, turn: 'same' });
    expect(unknown.difference).toBeNull();
    expect(unknown.risk).toBeCloseTo(0.8 * (0.5 + 0.5 * Math.exp(-0.4)), 9);
    expect(pair('#2f6f8f', null).risk).toBe(unknown.risk);
    expect(far.risk).toBeCloseTo(0.8 * (0.5 + 0.5 * Math.exp(-far.difference! / 30)), 9);
    expect(far.risk).toBeLessThan(unknown.risk);
    // The riskiest comes first.
    const all = likePairs(
      [
        line(1, { symbol: 'M', hex: '#ffffff' }),
        line(2, { symbol: 'W', hex: '#2f6f8f' }),
        line(3, { symbol: '6' }),
        line(4, { symbol: '9' }),
      ],
      NONE,
    );
    expect(all.map(({ lines }) => lines)).toEqual([
      [3, 4],
      [1, 2],
    ]);
  });
});

describe('shades that meet', () => {
  const legend = [
    line(1, { hex: '#777777' }),
    line(2, { hex: '#7a7a7a' }),
    line(3, { hex: '#7c7c7c' }),
    line(4, { hex: null }),
    line(5, { hex: '#7a7a7a', finish: 'metallic' }),
  ];

  it('are those of one finish whose tints are known, the nearest first without a chart', () => {
    expect(shadePairs(legend, null).map(({ lines }) => lines)).toEqual([
      [2, 3],
      [1, 2],
      [1, 3],
    ]);
  });

  it('count where they touch side by side or one above the other, not over corners nor round the edge', () => {
    const meetings = (...rows: string[]) =>
      shadePairs(legend, chartOfRows(...rows)).map((pair) => [...pair.lines, pair.meetings]);
    expect(meetings('12', '21')).toEqual([[1, 2, 4]]);
    expect(meetings('1.', '.2')).toEqual([]);
    expect(meetings('1.2', '2.1')).toEqual([[1, 2, 2]]);
    expect(meetings('1332', '....')).toEqual([
      [1, 3, 1],
      [2, 3, 1],
    ]);
    expect(meetings('121', '333')).toEqual([
      [1, 2, 2],
      [1, 3, 2],
      [2, 3, 1],
    ]);
    expect(meetings('44')).toEqual([]);
    // Those that meet most come first, wherever they stand in the list.
    expect(meetings('1223', '2332')).toEqual([
      [2, 3, 6],
      [1, 2, 2],
    ]);
  });
});

it('the block where two colours stand most together may be cut by the edge, and is the first of equals', () => {
  const rows = Array.from({ length: 11 }, (_, y) =>
    Array.from({ length: 12 }, (_, x) =>
      y === 10 && x >= 10 ? (x === 10 ? '1' : '2') : x === 3 && y === 4 ? '1' : '.',
    ).join(''),
  );
  expect(whereTogether(chartOfRows(...rows), [1, 2])).toEqual({
    x: 10,
    y: 10,
    width: 2,
    height: 1,
    drills: [1, 1],
  });
  const twice = [`12${'.'.repeat(8)}12`];
  expect(whereTogether(chartOfRows(...twice), [2, 1])).toEqual({
    x: 0,
    y: 0,
    width: 10,
    height: 1,
    drills: [1, 1],
  });
});

it('dark symbols are the darkest first, those without a tint left out', () => {
  expect(
    darkLines([line(1, { hex: '#222222' }), line(2, { hex: null }), line(3, { hex: '#000000' }), line(4)]),
  ).toEqual([3, 1]);
});

describe('advice in words', () => {
  it('on the whole kit names only what is there', () => {
    expect(checkInWords(2, 0, 0)).toBe('2 pairs of symbols are easily mixed up.');
    expect(checkInWords(0, 1, 0)).toBe('1 pair of colours a shade apart meets.');
    expect(checkInWords(0, 0, 3)).toBe('3 symbols need the light pad.');
    expect(checkInWords(1, 2, 1)).toBe(
      '1 pair of symbols is easily mixed up; 2 pairs of colours a shade apart meet; 1 symbol needs the light pad.',
    );
  });

  const pair = (more: Partial<LikePair>): LikePair => ({
    ...{ lines: [1, 2], shape: 0.9, turn: 'same', listed: false, difference: 0.5, risk: 0.9 },
    ...more,
  });

  it.each<[Partial<LikePair>, string]>([
    [{}, 'Nearly the same shape. Their tints do not help: cannot be told apart by eye.'],
    [
      { turn: 'mirrored', difference: 4 },
      'Mirror images of each other. Their tints differ, but too little to go by.',
    ],
    [
      { turn: 'upside down', difference: 11.9 },
      'The same shape upside down. Their tints differ, but too little to go by.',
    ],
    [{ turn: 'turned', difference: 12 }, 'The same shape, turned. Their tints help a little, in good light.'],
    [
      { turn: 'filled', difference: null },
      'The same outline, one of them filled. Their tints are not known.',
    ],
    [
      { listed: true, shape: 0.79, difference: 3.9 },
      'Many fonts print them alike. Their tints do not help: a shade apart.',
    ],
    [
      { listed: true, shape: 0.8, difference: 12 },
      'Nearly the same shape. Many fonts print them alike. Their tints help a little, in good light.',
    ],
  ])('on two symbols: %j', (more, words) => expect(likeInWords(pair(more))).toBe(words));

  it('on two shades', () => {
    const shade = (difference: number, meetings: number) =>
      shadeInWords({ lines: [1, 2], difference, meetings });
    expect(shade(0.4, 1234)).toBe('Cannot be told apart by eye. They touch 1,234 times.');
    expect(shade(1.2, 0)).toBe('Seen only side by side.');
  });

  it('on where they stand together', () => {
    const where = { x: 0, y: 10, width: 10, height: 7, drills: [5, 2] as [number, number] };
    expect(togetherInWords({ ...where, section: null })).toBe(
      'Most together in columns 1–10, rows 11–17: 5 and 2.',
    );
    expect(togetherInWords({ ...where, section: 1200 })).toBe(
      'Most together in columns 1–10, rows 11–17 (section 1,200): 5 and 2.',
    );
  });
});

describe('a picture of a symbol', () => {
  const side = DRAWING_SIDE;
  const picture = (at: (x: number, y: number) => number) =>
    Float32Array.from({ length: side * side }, (_, i) => at(i % side, Math.floor(i / side)));

  it('is parted midway between two clean groups of grey', () => {
    expect(otsu([10, 10, 10, 50, 50, 50])).toBeCloseTo(30, 6);
    expect(otsu([0, 0, 0, 0, 255])).toBeCloseTo(127.5, 0);
  });

  it('has its ink where it differs from its ground, with a soft step', () => {
    const square = picture((x, y) => (x >= 20 && x < 40 && y >= 24 && y < 44 ? 30 : 220));
    const dark = inkOfPicture(square);
    const light = inkOfPicture(square.map((value) => 255 - value));
    for (const ink of [dark, light]) {
      expect(ink[30 * side + 30]).toBe(1);
      expect(ink[0]).toBe(0);
      expect(ink.reduce((sum, value) => sum + value, 0)).toBe(400);
    }
    // A grey just at the threshold is half ink; 24 levels to either side it is all or none.
    const shades = picture((x, y) =>
      y < 32 ? 200 : x === 30 && y === 40 ? 132 : x === 31 && y === 40 ? 118 : 50,
    );
    expect(otsu(shades)).toBeCloseTo(125, 0);
    const ink = inkOfPicture(shades);
    // Half of the edge is light: the ground is taken for the light one.
    expect([ink[0], ink[63 * side + 5]]).toEqual([0, 1]);
    expect(ink[40 * side + 30]).toBeCloseTo(0.5 + (otsu(shades) - 132) / 48, 5);
    expect(ink[40 * side + 31]).toBeCloseTo(0.5 + (otsu(shades) - 118) / 48, 5);
  });

  it('is traced in a box of a hundred, whatever its place', () => {
    const path = tracedPath(picture((x, y) => (x >= 16 && x < 48 && y >= 8 && y < 56 ? 1 : 0)))!;
    const numbers = path.match(/[\d.]+/g)!.map(Number);
    const xs = numbers.filter((_, i) => i % 2 === 0);
    const ys = numbers.filter((_, i) => i % 2 === 1);
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([25, 75]);
    expect([Math.min(...ys), Math.max(...ys)]).toEqual([12.5, 87.5]);
    expect(path).toMatch(/^M[\d. L]+Z$/);
    expect(tracedPath(picture(() => 0))).toBeNull();
  });
});
