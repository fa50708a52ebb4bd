import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { makeChart } from '../../../src/core/cells/chart';
import { wholeRect } from '../../../src/core/cells/rect';
import { countConfetti, isConfetti } from '../../../src/core/placing/confetti';
import { countSeams } from '../../../src/core/placing/cutting';
import { inLayingOrder } from '../../../src/core/placing/layingOrder';
import type { Placement } from '../../../src/core/placing/placement';
import {
  priceInWords,
  SWITCH_NAMES,
  SWITCHES,
  secondsOfPlan,
  switched,
} from '../../../src/core/placing/prices';
import { coloursInOrder, SCHOOL_REASONS, SCHOOLS } from '../../../src/core/placing/schools';
import { LIGHT_FROM, USUAL_PLACING } from '../../../src/core/placing/wish';
import { line } from '../samples';

/** Placements by `h` or `v`, column, row, drills and line: `h 3 1 2 1`. */
const barsOf = (...words: string[]): Placement[] =>
  words.map((word) => {
    const [orientation, x, y, length, line] = word.split(' ');
    const [drills, tip] = [Number(length), Number(length)];
    return {
      orientation: orientation as 'h' | 'v',
      x: Number(x),
      y: Number(y),
      length: drills,
      line: Number(line),
      tip,
    };
  });
const inWords = (bars: readonly Placement[]) =>
  bars.map(({ orientation, x, y, length, line }) => `${orientation} ${x} ${y} ${length} ${line}`);

describe('the order of laying', () => {
  const section = { x: 1, y: 2, width: 6, height: 6 };
  // Two colours, rows and columns, two sizes and single drills, as a plan has them: in no order.
  const bars = barsOf(
    'h 2 4 1 1',
    'v 5 3 2 1',
    'v 2 5 3 1',
    'h 3 2 3 1',
    'h 1 4 2 1',
    'h 1 3 3 1',
    'h 4 3 3 1',
    'h 5 7 1 2',
    'h 3 7 2 2',
    'v 1 2 2 2',
    'h 3 6 1 2',
    'v 4 2 2 2',
    'v 1 5 2 2',
  );
  const laid = (
    lines: number[],
    hand: 'right' | 'left',
    more: Partial<Parameters<typeof inLayingOrder>[4]> = {},
  ) => inLayingOrder(bars, lines, section, hand, { passes: 'one', tipByTip: true, ...more });

  it('goes along rows, then down columns, tip by tip, then one by one, from the side away from the hand', () => {
    expect(inWords(laid([1, 3, 2], 'right').laid)).toEqual([
      ...['h 3 2 3 1', 'h 1 3 3 1', 'h 4 3 3 1', 'h 1 4 2 1', 'v 2 5 3 1', 'v 5 3 2 1', 'h 2 4 1 1'],
      // The last colour ended down columns, so this one begins so.
      ...['v 1 2 2 2', 'v 1 5 2 2', 'v 4 2 2 2', 'h 3 7 2 2', 'h 3 6 1 2', 'h 5 7 1 2'],
    ]);
    expect(laid([1, 3, 2], 'right').openings).toBe(2);
    expect(inWords(laid([2], 'left').laid)).toEqual([
      ...['h 3 7 2 2', 'v 4 2 2 2', 'v 1 2 2 2', 'v 1 5 2 2', 'h 3 6 1 2', 'h 5 7 1 2'],
    ]);
    expect(inWords(laid([1], 'left').laid).slice(0, 3)).toEqual(['h 3 2 3 1', 'h 4 3 3 1', 'h 1 3 3 1']);
  });

  it('or row by row, whatever the tip', () => {
    expect(inWords(laid([1], 'right', { tipByTip: false }).laid)).toEqual([
      ...['h 3 2 3 1', 'h 1 3 3 1', 'h 4 3 3 1', 'h 1 4 2 1', 'h 2 4 1 1', 'v 2 5 3 1', 'v 5 3 2 1'],
    ]);
  });

  it('or every second row or column of the section first, and of a checkerboard its dark squares', () => {
    const rows = laid([1, 2], 'right', { passes: 'rows' });
    expect(rows.openings).toBe(4);
    const isGap = ({ orientation, x, y }: Placement) => (orientation === 'h' ? y - 2 : x - 1) % 2 === 1;
    expect(rows.laid.map(isGap)).toEqual([...rows.laid.map(isGap)].sort((a, b) => Number(a) - Number(b)));
    expect(inWords(rows.laid.filter((bar) => bar.line === 1 && isGap(bar)))).toEqual([
      'v 2 5 3 1',
      'h 1 3 3 1',
      'h 4 3 3 1',
    ]);
    const squares = laid([1, 2], 'right', { passes: 'checkerboard' }).laid;
    const isLight = ({ x, y }: Placement) => (x - 1 + y - 2) % 2 === 1;
    expect(squares.map(isLight)).toEqual([...squares.map(isLight)].sort((a, b) => Number(a) - Number(b)));
  });
});

describe('seams', () => {
  it('are breaks beside a break of the row or column before, of the same colour', () => {
    expect(countSeams(barsOf('h 0 0 3 1', 'h 3 0 3 1', 'h 0 1 3 1', 'h 3 1 2 1'))).toBe(1);
    expect(countSeams(barsOf('h 0 0 3 1', 'h 3 0 3 1', 'h 0 1 2 1', 'h 2 1 3 1'))).toBe(0);
    expect(countSeams(barsOf('h 0 0 3 1', 'h 3 0 3 1', 'h 0 1 3 2', 'h 3 1 2 2'))).toBe(0);
    expect(countSeams(barsOf('v 0 0 3 1', 'v 0 3 3 1', 'v 1 0 3 1', 'v 1 3 2 1'))).toBe(1);
    expect(countSeams(barsOf('v 0 0 3 1', 'v 0 3 3 1', 'v 1 0 2 1', 'v 1 2 2 1'))).toBe(0);
    // A break in a row and one in a column are none together, nor are a row apart.
    expect(
      countSeams(barsOf('h 0 0 3 1', 'h 3 0 3 1', 'v 3 1 2 1', 'v 3 3 2 1', 'h 0 2 3 1', 'h 3 2 3 1')),
    ).toBe(0);
  });
});

it('confetti is a drill with no neighbour of its colour, counted where it is still to lay', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 20, maxLength: 20 }),
      fc.nat(19),
      (lines, done) => {
        const chart = makeChart(5, 4, Uint16Array.from(lines));
        const at = (x: number, y: number) => (x < 0 || y < 0 || x > 4 || y > 3 ? null : lines[y * 5 + x]);
        const lone = lines.map((own, cell) => {
          const [x, y] = [cell % 5, Math.floor(cell / 5)];
          return ![at(x - 1, y), at(x + 1, y), at(x, y - 1), at(x, y + 1)].includes(own);
        });
        expect(lines.map((_, cell) => isConfetti(chart, cell, cell % 5, Math.floor(cell / 5)))).toEqual(lone);
        const laid = emptyBitmap(20);
        setLaid(laid, done, true);
        expect(countConfetti(chart, [wholeRect(chart)], laid)).toBe(
          lone.filter((alone, cell) => alone && lines[cell] !== 0 && cell !== done).length,
        );
      },
    ),
  );
});

describe('wishes', () => {
  it('are the usual ones until somebody wishes, and each is switched on and off by itself', () => {
    expect(USUAL_PLACING).toEqual({
      ...{
        goal: 'placements',
        direction: 'free',
        turnWorth: 3,
        staggered: false,
        passes: 'one',
        tipByTip: true,
      },
      ...{ singlesAbove: null, longest: null, edgeSingles: false, school: 'most', ownOrder: [] },
    });
    // Wishes that exclude each other switch the other one off.
    const others: Partial<Record<string, string[]>> = {
      sparing: ['one'],
      one: ['sparing'],
      rows: ['checkerboard'],
      checkerboard: ['rows'],
    };
    for (const name of SWITCH_NAMES) {
      const on = switched(USUAL_PLACING, name, true);
      expect(SWITCHES[name].isOn(on), name).toBe(true);
      expect(SWITCHES[name].isOn(switched(on, name, false)), name).toBe(false);
      for (const other of SWITCH_NAMES.filter((each) => each !== name)) {
        const both = switched(on, other, true);
        expect(SWITCHES[name].isOn(both), `${name} beside ${other}`).toBe(!others[name]?.includes(other));
        expect(SWITCHES[other].isOn(switched(on, other, false)), `${other} without`).toBe(false);
      }
    }
    expect(switched(USUAL_PLACING, 'singlesAbove', true).singlesAbove).toBe(LIGHT_FROM);
    expect(switched({ ...USUAL_PLACING, longest: 2 }, 'longest', true).longest).toBe(2);
  });

  it('have prices in words, and minutes with four seconds for each change of tip (common practice, no source)', () => {
    const none = { colours: 0, singles: 0, shortBars: 0, longBars: 0, turns: 0, confetti: 0 };
    const effort = { ...none, colours: 1, singles: 2, shortBars: 3 };
    expect(
      secondsOfPlan({ effort, tipChanges: 3 }, { ...none, colours: 20, singles: 1.5, shortBars: 2 }),
    ).toBe(41);
    expect(priceInWords({ placements: 0, seconds: 0 })).toBe('As many placements, no change in time');
    expect(priceInWords({ placements: -1, seconds: 20 })).toBe('1 placement fewer, some seconds more');
    expect(priceInWords({ placements: 9, seconds: -45 })).toBe('9 placements more, about 1 minute less');
    expect(priceInWords({ placements: 2, seconds: -1 })).toBe('2 placements more, some seconds less');
  });
});

it('colours come in the order of a school, each with its reason', () => {
  const legend = [
    line(1, { hex: '#808080' }),
    line(2, { hex: '#101010' }),
    line(3, { hex: '#f8f8f8' }),
    line(4, {}),
  ];
  const drills = [0, 5, 9, 5, 0];
  const inOrder = (
    ...rest: Parameters<typeof coloursInOrder> extends [unknown, unknown, ...infer R] ? R : never
  ) => coloursInOrder(legend, drills, ...rest).map((each) => each.line);
  expect(inOrder()).toEqual([2, 1, 3]);
  expect(inOrder('most')).toEqual([2, 1, 3]);
  expect(inOrder('dark')).toEqual([2, 1, 3]);
  expect(inOrder('light')).toEqual([3, 1, 2]);
  expect(inOrder('sheet')).toEqual([1, 2, 3]);
  expect(inOrder('own')).toEqual([1, 2, 3]);
  expect(inOrder('own', [3, 4, 2])).toEqual([3, 2, 1]);
  for (const school of SCHOOLS) {
    expect(SCHOOL_REASONS[school].name, school).toMatch(/^[A-Z].{8}/);
    expect(SCHOOL_REASONS[school].reason, school).toMatch(/^[A-Z].{20,}\.$/);
  }
});
