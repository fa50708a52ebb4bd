import { describe, expect, it } from 'vitest';
import { isEstimated } from '../../../src/core/checkin/bag';
import { bagInWords } from '../../../src/core/checkin/bagInWords';
import { checkinTableOut } from '../../../src/core/checkin/checkinTable';
import { lacks, mayRunOut } from '../../../src/core/checkin/lacking';
import { sheetFindings } from '../../../src/core/checkin/sheetSanity';
import {
  arithmeticOf,
  bagsToFind,
  type LineSupply,
  reasonInWords,
  spokenResult,
  summarise,
  supplyInWords,
  verdictInWords,
} from '../../../src/core/checkin/supply';
import { line } from '../samples';

const supply = (more: Partial<LineSupply> = {}): LineSupply => ({
  ...{
    line: 1,
    neededDrills: 970,
    suppliedDrills: 1000,
    spread: 12.4,
    bags: 5,
    expectedBags: 5,
    bagsToFind: 0,
  },
  ...{ verdict: { kind: 'enough', over: 0 }, chance: 0.0123, lastsUntilSection: null },
  fromSeller: { bags: 0, drills: 0, spread: 0 },
  ...more,
});
const all = {
  ...{ colours: 12, missing: 0, short: 0, tight: 0, strays: 0, bags: 20, expectedBags: 20, bagsToFind: 0 },
};

describe('a bag in words', () => {
  const legend = [line(1, { code: '412' }), line(2, { code: '98' })];
  const entry = (kind: string, number: number | null, drills = 200) =>
    bagInWords({ kind, line: number, label: '77', drills } as never, legend);

  it.each([
    ['count', 2, 200, 'a bag of 98 with 200 drills counted'],
    ['count', null, 1, 'a bag of 77 with 1 drill counted'],
    ['assign', 1, 200, 'bag 77 taken for 412'],
    ['change', 2, 1, 'a bag changed to 98 with 1 drill'],
    ['remove', 1, 1240, 'a bag of 412 with 1,240 drills removed'],
  ] as const)('%s of line %s with %i', (kind, number, drills, words) => {
    expect(entry(kind, number, drills)).toBe(words);
  });

  it('what was weighed or photographed is estimated, what was counted or printed is not', () => {
    expect(['nominal', 'counted', 'weighed', 'photographed'].map((how) => isEstimated(how as never))).toEqual(
      [...[false, false, true, true]],
    );
  });
});

describe('a verdict in words', () => {
  it.each([
    [{ kind: 'missing' }, 'No bag yet'],
    [{ kind: 'short', by: 1240 }, '1,240 missing'],
    [{ kind: 'spare', over: 1030 }, '1,030 extra'],
    [{ kind: 'tight', over: 9 }, 'Just enough'],
    [{ kind: 'enough' }, 'Enough'],
  ] as const)('%j', (verdict, words) => {
    expect(verdictInWords(verdict as never)).toBe(words);
  });

  it('has a reason, and says how long a colour lasts only where it may run out', () => {
    const reason = (verdict: object, lastsUntilSection: number | null = 7) =>
      reasonInWords(supply({ verdict: verdict as never, chance: 0.3, lastsUntilSection }));
    expect(reason({ kind: 'missing' })).toBe('No bag of it is counted yet.');
    const chance = reason({ kind: 'enough' });
    expect(chance).toMatch(/^[A-Z].*\.$/);
    expect(reason({ kind: 'short', by: 9 })).toBe(`${chance} It lasts until section 7.`);
    expect(reason({ kind: 'short', by: 9 }, null)).toBe(chance);
    expect(reason({ kind: 'tight', over: 9 })).toBe(`Only 9 extra. ${chance} It lasts until section 7.`);
  });

  it('is said aloud sign by sign, with the bags that are still to find', () => {
    const said = (bags: number) => spokenResult('3A', supply({ bagsToFind: bags }), 'pot 17');
    expect(said(0)).toMatch(/^3 A: Enough\. \S/);
    expect(said(0)).not.toContain('still to find');
    expect(said(1)).toContain('Enough. One bag still to find. ');
    expect(said(3)).toContain('Enough. 3 bags still to find. ');
  });

  it('is shown step by step, with what was learned of the filler', () => {
    const trash = { thrown: 24, handled: 600, share: 0.0375 };
    const steps = (deviation: number, bags: number) =>
      arithmeticOf(supply(), trash, { deviation, spread: 0.0141, bags });
    // By hand: 970 ÷ (1 − 0.0375) = 1007.8; 1000 × 0.9625 = 962.5.
    expect(steps(0, 0)).toEqual([
      'Needed on the canvas: 970.',
      'Bad drills 3.8 %: 24 of 600, with the 6 in 200 that are assumed at the start.',
      'To have 970 good ones: 970 ÷ (1 − 3.8 %) = 1,008.',
      'Bags of one kit are filled alike: all may hold up to 2.8 % more or less than printed.',
      expect.stringMatching(/^Here: 1,000 in 5 bags, give or take 25; good ones of these about 96[23]\.$/),
      'Chance that the good drills do not reach 970: 1.2 %.',
    ]);
    expect(steps(-0.0213, 1)[3]).toBe(
      'Bags of this kit hold 2.1 % less than printed, give or take 2.8 %, by 1 bag counted or weighed.',
    );
    expect(steps(0.0213, 4)[3]).toContain('hold 2.1 % more than printed, give or take 2.8 %, by 4 bags');
  });
});

describe('a whole canvas in words', () => {
  it.each([
    [{ colours: 0 }, 'There is no colour list yet, so there is nothing to check against.'],
    [
      { bags: 0, expectedBags: 0 },
      'Nothing counted yet: bags of 12 colours to find. The list does not say how many bags there are.',
    ],
    [{ bags: 0 }, 'Nothing counted yet: 20 bags of 12 colours to find.'],
    [{}, 'Every colour is here with enough drills, 12 colours.'],
    [
      { bagsToFind: 1, strays: 2 },
      'Every colour is here with enough drills, 12 colours; 1 bag still to find. 2 bags not in the colour list.',
    ],
    [{ tight: 2 }, '2 with just enough, of 12 colours.'],
    [
      { missing: 1, short: 3, tight: 2, bagsToFind: 4 },
      '1 colour without a bag, 3 with too few drills, 2 with just enough, of 12 colours; 4 bags still to find.',
    ],
  ])('%j', (more, words) => {
    expect(supplyInWords({ ...all, ...more })).toBe(words);
  });

  it('counts each kind of verdict, and bags of no colour', () => {
    const lines = ['missing', 'short', 'tight', 'tight', 'enough'].map((kind, i) =>
      supply({ verdict: { kind } as never, expectedBags: i, bagsToFind: i % 2 }),
    );
    const bags = [{ line: 1 }, { line: null }, { line: null }] as never;
    expect(summarise(lines, bags)).toEqual({
      ...{ colours: 5, missing: 1, short: 1, tight: 2, strays: 2, bags: 3, expectedBags: 10, bagsToFind: 2 },
    });
  });

  it('leaves as a table: sheet, bags, drills, give or take, verdict, chance', () => {
    const { header, rows } = checkinTableOut([line(1)], [supply()]);
    expect(header.slice(8)).toEqual([
      ...['Bags here', 'Drills here', 'Give or take', 'Verdict', 'Chance of running out, %'],
    ]);
    expect(rows[0]!.slice(8)).toEqual([5, 1000, 25, 'Enough', 1.2]);
    expect(rows[0]).toHaveLength(header.length);
  });
});

describe('what is still to find', () => {
  const find = (packets: number, neededDrills: number, bags: number, drills: number) =>
    bagsToFind({ packets, neededDrills }, 200, { bags, drills });

  it('where the list tells of no bags: one, if drills are wanted and none is here', () => {
    expect([find(0, 100, 0, 0), find(0, 0, 0, 0), find(0, 100, 1, 1)]).toEqual([1, 0, 0]);
  });

  it('is never more than the list has, and nothing once all are here', () => {
    expect([find(5, 900, 0, 0), find(5, 900, 2, 400), find(5, 900, 5, 10), find(5, 900, 6, 10)]).toEqual([
      ...[5, 3, 0, 0],
    ]);
    // One bag of 1,000 stands for five of 200, and one of 60 for its bag alone.
    expect([find(5, 900, 1, 1000), find(2, 400, 1, 60)]).toEqual([0, 1]);
  });
});

describe('the rules of lacking', () => {
  it('drills or bags lack; short and tight colours may run out', () => {
    const lacking = (suppliedDrills: number, bagsToFind: number) =>
      lacks(supply({ suppliedDrills, bagsToFind }));
    expect([lacking(970, 0), lacking(969, 0), lacking(970, 1)]).toEqual([false, true, true]);
    const out = ['missing', 'short', 'tight', 'spare', 'enough'].map((kind) =>
      mayRunOut(supply({ verdict: { kind } as never })),
    );
    expect(out).toEqual([false, true, true, false, false]);
  });
});

describe('findings on a sheet', () => {
  const canvas = { width: 20, height: 20, packetDrills: 200 };
  const of = (
    legend: Parameters<typeof sheetFindings>[1],
    kind: string,
    onChart: Uint32Array | null = null,
  ) => sheetFindings(canvas, legend, onChart).filter((each) => each.kind === kind);

  it('say by how much chart and list differ, and which way does harm', () => {
    const legend = [
      line(1, { neededDrills: 300, packets: 2 }),
      line(2, { neededDrills: 100, packets: 1 }),
      line(3, { neededDrills: 0 }),
    ];
    expect(of(legend, 'chart', Uint32Array.of(0, 310, 90, 0))).toEqual([
      {
        kind: 'chart',
        sentence: '401: the list says 300, the chart has 310.',
        meaning: 'Check its bags against 310; the list asks for 10 too few.',
        lines: [1],
      },
      {
        kind: 'chart',
        sentence: '402: the list says 100, the chart has 90.',
        meaning: 'There are more drills than the picture takes, which does no harm.',
        lines: [2],
      },
    ]);
    expect(of([line(1, { neededDrills: 390 })], 'sum', Uint32Array.of(0, 400))[0]).toMatchObject({
      sentence: 'The colour list adds up to 390 drills, but the chart wants 400.',
      lines: [],
    });
    expect(of([line(1, { neededDrills: 0 })], 'sum')).toEqual([]);
  });

  it('name bags that cannot hold what is needed, where the list tells of bags', () => {
    const legend = [
      line(1, { neededDrills: 200, packets: 1 }),
      line(2, { neededDrills: 201, packets: 1 }),
      line(3, { neededDrills: 900, packets: 0 }),
    ];
    expect(of(legend, 'packets').map((each) => each.lines)).toEqual([[2]]);
  });

  it('name codes that come twice, however they are written, and symbols, but not where there is none', () => {
    const twice = [
      line(1, { code: 'a1', finish: 'plain', symbol: null }),
      line(2, { code: 'A1', finish: 'metallic', symbol: null }),
      line(3, { symbol: 'X', code: '7' }),
      line(4, { symbol: 'X', code: '8' }),
    ];
    expect(of(twice, 'code')).toEqual([
      {
        kind: 'code',
        sentence: 'Code a1 is in the list 2 times (plain, metallic).',
        meaning: 'At the heap you will be asked which of them a bag is.',
        lines: [1, 2],
      },
    ]);
    expect(of(twice, 'symbol')).toEqual([
      {
        kind: 'symbol',
        sentence: 'Symbol X stands for 7 and 8.',
        meaning: 'On the canvas only their tints differ. Mark one of them with a pen before you start.',
        lines: [3, 4],
      },
    ]);
  });

  it('name gaps in the key numbers, where all are numbers and most are there', () => {
    const keyed = (...keys: string[]) => keys.map((keyNumber, i) => line(i + 1, { keyNumber }));
    expect(of(keyed('1', '2', '4'), 'key')).toEqual([
      {
        kind: 'key',
        sentence: 'Key number 3 is missing between 1 and 4.',
        meaning: 'Check whether a row of the sheet was cut off or left out when it was copied.',
        lines: [],
      },
    ]);
    expect(of(keyed('2', '4', '10', '11', '12', '13', '14'), 'key')[0]!.sentence).toBe(
      'Key numbers 1, 3, 5, 6, 7, 8 and 1 more are missing between 1 and 14.',
    );
    expect(of(keyed('1', '3', '5', '7', '9', '11', '13'), 'key')[0]!.sentence).toContain(
      'numbers 2, 4, 6, 8, 10, 12 are missing',
    );
    expect(of(keyed('10', '20'), 'key')).toEqual([]);
    expect(of(keyed('1', '3A'), 'key')).toEqual([]);
    expect(of(keyed('1', 'A3'), 'key')).toEqual([]);
    expect(of(keyed('1', '12345'), 'key')).toEqual([]);
    expect(of(keyed('1', '2'), 'key')).toEqual([]);
  });

  it('name colours without drills and without bags, six of them, and tell how many more', () => {
    const empty = Array.from({ length: 8 }, (_, i) => line(i + 1, { neededDrills: 0, packets: 0 }));
    const half = [line(9, { neededDrills: 0, packets: 1 }), line(10, { neededDrills: 5, packets: 0 })];
    expect(of([...empty, ...half], 'nothing')).toEqual([
      {
        kind: 'nothing',
        sentence: '401, 402, 403, 404, 405, 406 and 2 more: neither drills nor bags are given.',
        meaning: 'Their bags can be counted, but not checked. Fill in the drills or the bags.',
        lines: [1, 2, 3, 4, 5, 6, 7, 8],
      },
    ]);
    expect(of(half, 'nothing')).toEqual([]);
  });
});
