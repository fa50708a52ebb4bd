import { describe, expect, it } from 'vitest';
import { emptyBitmap } from '../../../src/core/cells/bitmap';
import { wholeRect } from '../../../src/core/cells/rect';
import { USUAL_SECONDS } from '../../../src/core/pace/timeModel';
import { adviceFor } from '../../../src/core/placing/advice';
import { isMostlySingles } from '../../../src/core/placing/confetti';
import {
  boundInWords,
  countsByTip,
  placementInWords,
  readOut,
  rollOf,
} from '../../../src/core/placing/inWords';
import { placingSheet } from '../../../src/core/placing/paper';
import type { Placement } from '../../../src/core/placing/placement';
import { turnsIn } from '../../../src/core/placing/placement';
import { PlacingPlanner } from '../../../src/core/placing/plan';
import { priceInWords } from '../../../src/core/placing/prices';
import { regionsOf } from '../../../src/core/placing/regions';
import { coloursInOrder } from '../../../src/core/placing/schools';
import { changedTips, type OwnTip, orderTips, tipFor, tipsFor } from '../../../src/core/placing/tips';
import {
  enoughTip,
  savedBy,
  type TipWorth,
  tipsInWords,
  tipsWorth,
} from '../../../src/core/placing/tipsWorth';
import { USUAL_PLACING } from '../../../src/core/placing/wish';
import { chartOfRows, line } from '../samples';

const bar = (
  x: number,
  y: number,
  length: number,
  orientation: 'h' | 'v' = 'h',
  tip = length,
): Placement => ({
  x,
  y,
  length,
  orientation,
  line: 1,
  tip,
});

describe('a plan read out', () => {
  it('goes row by row, then column by column, with what is skipped', () => {
    expect(readOut([bar(10, 11, 3), bar(3, 11, 7), bar(15, 11, 1), bar(4, 2, 2), bar(6, 0, 4, 'v')])).toEqual(
      {
        along: [
          { number: 3, words: 'from column 5: 2' },
          { number: 12, words: 'from column 4: 7, 3, skip 2, single' },
        ],
        down: [{ number: 7, words: 'from row 1: 4' }],
      },
    );
  });

  it('tells each placement with the end that is planted, and mirrors it for the left hand', () => {
    expect(placementInWords(bar(4, 11, 7, 'h', 7), 'right')).toBe(
      'Row 12, columns 5 to 11: 7 drills with the 7-tip. Plant column 5 first, roll to the right.',
    );
    expect(placementInWords(bar(4, 11, 2, 'h', 6), 'left')).toBe(
      'Row 12, columns 5 to 6: only 2 drills with the 6-tip. Plant column 6 first, roll to the left.',
    );
    expect(placementInWords(bar(4, 11, 3, 'v', 3), 'left')).toBe(
      'Column 5, rows 12 to 14: 3 drills with the 3-tip. Plant row 12 first, roll down.',
    );
    expect(placementInWords(bar(0, 0, 1), 'right')).toBe('Row 1, column 1: a single drill.');
    expect(rollOf(bar(4, 11, 7), 'left')).toEqual({ plant: { x: 10, y: 11 }, to: 'left' });
  });

  it('counts by tip, the widest first', () => {
    expect(countsByTip([bar(0, 0, 1), bar(1, 0, 2, 'h', 3), bar(4, 0, 3), bar(8, 0, 1)])).toEqual([
      { tip: 3, placements: 2, drills: 5 },
      { tip: 1, placements: 2, drills: 2 },
    ]);
  });

  it('says how near it is to the best', () => {
    const placements = [bar(0, 0, 1), bar(1, 1, 1)];
    expect(boundInWords({ placements, lowerBound: 2 })).toBe('No plan has fewer.');
    expect(boundInWords({ placements, lowerBound: 1 })).toBe('No plan has fewer than 1.');
  });

  it('turns between rows and columns, single drills aside', () => {
    expect(turnsIn([bar(0, 0, 3), bar(0, 1, 1, 'v'), bar(0, 2, 3), bar(5, 0, 3, 'v'), bar(0, 3, 2)])).toBe(2);
  });

  it('is printed with its bars and every row', () => {
    const chart = chartOfRows('1112', '1.22');
    const legend = [line(1), line(2)];
    const part = wholeRect(chart);
    const plan = new PlacingPlanner().plan(
      {
        chart,
        laid: emptyBitmap(8),
        legend,
        parts: [part],
        tips: [1, 3],
        seconds: USUAL_SECONDS,
        hand: 'right',
      },
      USUAL_PLACING,
    );
    const pages = placingSheet({ title: 'Kit', date: 'today', paper: 'a4' }, 'Section 1', part, plan, legend);
    const texts = pages.flatMap(({ marks }) =>
      marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : [])),
    );
    expect(texts).toContain('4 placements for 7 drills. No plan has fewer.');
    expect(texts).toContain('401: 4 drills, 2 placements');
    expect(texts).toContain('    Row 1, from column 1: 3');
    const bars = pages[0]!.marks.filter((mark) => mark.kind === 'rect');
    expect(bars).toHaveLength(4);
    expect(bars.every(({ fill }) => fill === '#acc5d2')).toBe(true);
  });
});

describe('prices in words', () => {
  it('say more and fewer, more and less', () => {
    expect(priceInWords({ placements: 9, seconds: -70 })).toBe('9 placements more, about 1 minute less');
    expect(priceInWords({ placements: -1, seconds: 120 })).toBe('1 placement fewer, about 2 minutes more');
    expect(priceInWords({ placements: 0, seconds: 20 })).toBe('As many placements, some seconds more');
    expect(priceInWords({ placements: 0, seconds: 0 })).toBe('As many placements, no change in time');
  });
});

describe('tips', () => {
  const own = (size: number, shape: OwnTip['shape'] = 'both', worn = false): OwnTip => ({
    size,
    shape,
    pen: '',
    worn,
  });

  it('are sorted with the single placer, and go by the shape of the drills', () => {
    expect(orderTips([9, 3, 9])).toEqual([1, 3, 9]);
    expect(tipsFor([own(6, 'square'), own(3, 'round'), own(4)], 'round')).toEqual([1, 3, 4]);
    expect(tipFor(4, [1, 3, 6, 9])).toBe(6);
    expect(tipFor(3, [1, 3, 6])).toBe(3);
  });

  it('are worth what they save: runs of twelve', () => {
    const chart = chartOfRows('1'.repeat(12), '.'.repeat(12), '2'.repeat(12));
    const worth = tipsWorth([regionsOf(chart, null)], USUAL_SECONDS, 1);
    expect(worth.map(({ placements }) => placements)).toEqual([
      24, 12, 8, 6, 6, 4, 4, 4, 4, 4, 4, 2, 2, 2, 2,
    ]);
    expect(worth[0]!.seconds).toBeCloseTo(24 * USUAL_SECONDS.singles);
    // Of the tips that are sold the 13 is the first that takes twelve at once.
    expect(enoughTip(worth).tip).toBe(13);
    expect(savedBy(worth, 3, 6)).toEqual({
      placements: 4,
      seconds: 8 * USUAL_SECONDS.shortBars - 4 * USUAL_SECONDS.longBars,
    });
  });

  it('that earn their place are named in a sentence', () => {
    const at = (tip: number, placements: number): TipWorth => ({ tip, placements, seconds: placements * 6 });
    const falls = Array.from({ length: 15 }, (_, i) => at(i + 1, i < 5 ? 1000 - i * 100 : 590 - i));
    expect(tipsInWords(falls, [1, 3])).toBe(
      'A 6-tip saves 215 placements, about 22 minutes; a 15-tip adds 9.',
    );
    expect(tipsInWords(falls, [1, 9])).toBe(
      'A wider tip than your 9-tip saves no more than 6 placements. A 6-tip does nearly as well here.',
    );
    const flat = Array.from({ length: 15 }, (_, i) => at(i + 1, 10));
    expect(tipsInWords(flat, [1])).toBe('A wider tip than your single placer saves nothing here.');
    expect(
      tipsInWords(
        flat.map((each) => ({ ...each, placements: 0 })),
        [1],
      ),
    ).toBe('Nothing is left to lay here.');
  });
});

describe('the schools', () => {
  const legend = [line(1, { hex: '#ffffff' }), line(2, { hex: '#000000' }), line(3, { hex: '#777777' })];
  const drills = [0, 5, 2, 9];
  const by = (
    ...args: Parameters<typeof coloursInOrder> extends [infer _A, infer _B, ...infer R] ? R : never
  ) => coloursInOrder(legend, drills, ...args).map((each) => each.line);

  it('order the colours of a section', () => {
    expect(by('most')).toEqual([3, 1, 2]);
    expect(by('dark')).toEqual([2, 3, 1]);
    expect(by('light')).toEqual([1, 3, 2]);
    expect(by('sheet')).toEqual([1, 2, 3]);
    expect(by('own', [3])).toEqual([3, 1, 2]);
    expect(coloursInOrder(legend, [0, 0, 2, 0], 'own', [3, 2]).map((each) => each.line)).toEqual([2]);
  });
});

describe('hints', () => {
  const keys = (facts: Partial<Parameters<typeof adviceFor>[0]>) =>
    adviceFor({ plan: { placements: [] }, shape: 'square', tips: [], finishes: [], ...facts }).map(
      ({ key }) => key,
    );

  it('bear on what the plan holds', () => {
    expect(keys({})).toEqual([]);
    expect(keys({ plan: { placements: [bar(0, 0, 1)] } })).toEqual([]);
    expect(keys({ plan: { placements: [bar(0, 0, 3)] } })).toEqual(['load', 'square']);
    expect(keys({ plan: { placements: [bar(0, 0, 2, 'v', 6)] }, shape: 'round' })).toEqual([
      'fewer',
      'round',
      'wrist',
    ]);
    expect(keys({ finishes: ['metallic'] })).toEqual(['coated']);
    const worn: OwnTip = { size: 3, shape: 'both', pen: '', worn: true };
    expect(keys({ plan: { placements: [bar(0, 0, 3)] }, tips: [worn] })).toContain('worn');
    expect(keys({ plan: { placements: [bar(0, 0, 2, 'h', 2)] }, tips: [worn] })).not.toContain('worn');
  });

  it('tell a section of singles', () => {
    expect(isMostlySingles({ drills: 10, effort: { singles: 6 } })).toBe(true);
    expect(isMostlySingles({ drills: 10, effort: { singles: 5 } })).toBe(false);
  });
});

describe('a pen case that two screens change', () => {
  const tip = (size: number, worn = false, pen = ''): OwnTip => ({ size, shape: 'both', pen, worn });

  it('has what either put in, and not what either took out', () => {
    const seen = [tip(1), tip(3), tip(6), tip(9)];
    // The other one took out 3, put in 4 and found 9 worn; this one takes out 6, puts in 13, and finds 1 worn.
    const now = [tip(1), tip(4), tip(6), tip(9, true)];
    const wish = [tip(1, true), tip(3), tip(9), tip(13)];
    expect(changedTips(now, seen, wish)).toEqual([tip(1, true), tip(4), tip(9, true), tip(13)]);
  });

  it('tells tips of one size apart by their pen, and keeps one of two that are alike', () => {
    const seen = [tip(6, false, 'blue')];
    expect(changedTips(seen, seen, [tip(6, false, 'blue'), tip(6)])).toEqual([tip(6, false, 'blue'), tip(6)]);
    expect(changedTips([tip(6)], seen, [tip(6), tip(6, true)])).toEqual([tip(6, true)]);
    expect(changedTips([], seen, seen)).toEqual([]);
  });
});
