import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import type { CountedBag } from '../../../src/core/checkin/bag';
import { learnedFilling, nominalSpread } from '../../../src/core/checkin/filling';
import {
  arithmeticOf,
  bagsToFind,
  heapToFind,
  judge,
  packetsFor,
  reasonInWords,
  spokenResult,
  summarise,
  supplyInWords,
  supplyOf,
  verdictInWords,
} from '../../../src/core/checkin/supply';
import { line } from '../samples';

const bag = (number: number | null, drills = 200, id = String(Math.random())): CountedBag => ({
  id,
  line: number,
  label: String(number),
  drills,
  how: 'nominal',
  spread: nominalSpread(drills),
  shared: [],
  origin: 'kit',
});

describe('packets', () => {
  // Common practice, no source: a small packet holds about 200 drills, a big bag about 1,000.
  it.each([
    [1, 200, 1],
    [200, 200, 1],
    [201, 200, 2],
    [1240, 200, 7],
    [8000, 1000, 8],
    [0, 200, 0],
  ])('%i drills at %i a packet take %i', (needed, size, packets) => {
    expect(packetsFor(needed, size)).toBe(packets);
  });

  it('cover the need, and one fewer would not', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 5000 }), (needed, size) => {
        const packets = packetsFor(needed, size);
        expect(packets * size).toBeGreaterThanOrEqual(needed);
        expect((packets - 1) * size).toBeLessThan(needed);
      }),
    );
  });

  it.each([0, -1, Number.NaN])('refuses a packet of %d', (size) => {
    expect(() => packetsFor(10, size)).toThrow('at least one drill');
  });
});

describe('verdict', () => {
  it.each([
    [100, 0, 1, { kind: 'missing' }],
    [0, 0, 0, { kind: 'enough', over: 0 }],
    [340, 200, 1, { kind: 'short', by: 140 }],
    [199, 200, 0.9, { kind: 'tight', over: 1 }],
    [190, 200, 0.05, { kind: 'tight', over: 10 }],
    [190, 200, 0.04, { kind: 'enough', over: 10 }],
    [200, 399, 0, { kind: 'enough', over: 199 }],
    [200, 400, 0, { kind: 'spare', over: 200 }],
  ])('of %i needed, %i here, chance %d', (needed, here, chance, verdict) => {
    expect(judge(needed, here, 200, chance)).toEqual(verdict);
  });

  it('is said in a word or two', () => {
    expect(verdictInWords({ kind: 'missing' })).toBe('No bag yet');
    expect(verdictInWords({ kind: 'short', by: 1240 })).toBe('1,240 missing');
    expect(verdictInWords({ kind: 'tight', over: 1 })).toBe('Just enough');
    expect(verdictInWords({ kind: 'spare', over: 274 })).toBe('274 extra');
  });
});

describe('supply of a canvas', () => {
  it('adds what each bag errs by itself as variances, and what all err together as it is', () => {
    const supplied = (bags: CountedBag[]) => supplyOf([line(1, { neededDrills: 700 })], bags, 200)[0]!;
    // 1 % of 200 each by itself, 3 % of 400 together.
    expect(supplied([bag(1), bag(1)]).spread).toBeCloseTo(Math.hypot(2, 2, 12), 9);
    // A bag counted by hand adds nothing, but it tells of the filler: one of 200 is as printed.
    const learned = supplied([bag(1), bag(1), { ...bag(1), how: 'counted', spread: 0 }]).spread;
    expect(learned).toBeCloseTo(Math.hypot(2, 2, 400 / Math.sqrt(1 / 0.03 ** 2 + 1 / 0.01 ** 2)), 9);
  });

  it('adds up as it is what bags of one sample err by together, and learns no more from many than they tell', () => {
    const weighed = (id: string, source: string): CountedBag => ({
      ...bag(1, 200, id),
      how: 'weighed',
      spread: 3,
      shared: [{ source, spread: 4 }],
    });
    const spreadOf = (bags: CountedBag[]) => supplyOf([line(1)], bags, 200)[0]!.spread;
    expect(spreadOf([weighed('a', 's'), weighed('b', 's')])).toBeCloseTo(Math.hypot(3, 3, 8), 9);
    expect(spreadOf([weighed('a', 's'), weighed('b', 't')])).toBeCloseTo(Math.hypot(3, 3, 4, 4), 9);
    // 4 of 200 are 2 % in common: however many are weighed, the filler is not known better than that.
    const many = Array.from({ length: 10_000 }, (_, i) => weighed(String(i), 's'));
    expect(learnedFilling(many, [200]).spread).toBeCloseTo(1 / Math.sqrt(1 / 0.03 ** 2 + 1 / 0.02 ** 2), 5);
    expect(learnedFilling([weighed('a', 's'), weighed('b', 't')], [200]).spread).toBeLessThan(
      learnedFilling([weighed('a', 's'), weighed('b', 's')], [200]).spread,
    );
  });

  it('does not average out what a filler does to all bags: 42 of 200 for 8,000 run out with 28.7 %', () => {
    const bags = Array.from({ length: 42 }, (_, i) => bag(1, 200, String(i)));
    const [supply] = supplyOf([line(1, { neededDrills: 8000, packets: 42 })], bags, 200);
    expect(supply!.chance * 100).toBeCloseTo(28.7, 1);
    // A simulation by itself: one factor for all bags, one for each, and bad drills one by one.
    const random = seededRandom(42);
    let out = 0;
    const runs = 20_000;
    for (let run = 0; run < runs; run++) {
      const common = 0.03 * random.normal();
      let drills = 0;
      for (let i = 0; i < 42; i++) drills += 200 * (1 + common + 0.01 * random.normal());
      // Beta(6, 194) as a ratio of two gamma laws, each a sum of exponentials.
      const gamma = (shape: number) => {
        let sum = 0;
        for (let i = 0; i < shape; i++) sum -= Math.log(1 - random.uniform());
        return sum;
      };
      const [bad, good] = [gamma(6), gamma(194)];
      const share = bad / (bad + good);
      const usable = drills * (1 - share) + Math.sqrt(drills * share * (1 - share)) * random.normal();
      if (usable < 7999.5) out++;
    }
    expect(Math.abs(out / runs - supply!.chance)).toBeLessThan(4 * Math.sqrt(0.25 / runs));
  });

  it('does not call bags missing whose drills are here in larger ones', () => {
    const find = (packets: number, neededDrills: number, bags: number, drills: number) =>
      bagsToFind({ packets, neededDrills }, 200, { bags, drills });
    expect(find(5, 900, 1, 1000)).toBe(0);
    expect(find(5, 900, 1, 985)).toBe(0);
    expect(find(3, 500, 2, 400)).toBe(1);
    expect(find(20, 3900, 19, 3800)).toBe(1);
    expect(find(1, 150, 0, 0)).toBe(1);
    // Three bags for 2,900 are bags of about 1,000.
    expect(find(3, 2900, 1, 1000)).toBe(2);
    expect(find(2, 300, 4, 560)).toBe(0);
  });

  it('knows what the seller sent apart from the rest', () => {
    const [supply] = supplyOf(
      [line(1, { neededDrills: 700, packets: 4 })],
      [bag(1), { ...bag(1, 300), origin: 'stash', how: 'counted', spread: 0 }],
      200,
    );
    expect(supply).toMatchObject({
      suppliedDrills: 500,
      fromSeller: { bags: 1, drills: 200 },
      bagsToFind: 3,
    });
  });

  it('never gets likelier to run out by another bag', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 3000 }),
        fc.integer({ min: 1, max: 12 }),
        (neededDrills, bags) => {
          const chance = (n: number) =>
            supplyOf(
              [line(1, { neededDrills })],
              Array.from({ length: n }, () => bag(1)),
              200,
            )[0]!.chance;
          expect(chance(bags + 1)).toBeLessThanOrEqual(chance(bags) + 1e-9);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('opens the arithmetic, and says aloud what counts', () => {
    const [supply] = supplyOf([line(1, { neededDrills: 500, packets: 3 })], [bag(1), bag(1)], 200);
    expect(reasonInWords(supply!)).toBe('Almost certain to run out (above 99 %).');
    expect(reasonInWords({ ...supply!, lastsUntilSection: 31 })).toContain('It lasts until section 31.');
    // 500 ÷ 0.97 = 515.5; 400 × 0.97 = 388; 3 % of 400 in common and 2 for each bag: 2 × √(144 + 4 + 4) = 24.7.
    const filling = learnedFilling([], [200]);
    const steps = arithmeticOf(supply!, { handled: 200, thrown: 6, share: 0.03 }, filling).join(' ');
    expect(steps).toContain('500 ÷ (1 − 3.0 %) = 516');
    expect(steps).toContain('400 in 2 bags, give or take 25; good ones of these about 388');
    expect(spokenResult('412', supply!, 'pot 7')).toBe('4 1 2: 100 missing. One bag still to find. Pot 7.');
  });

  const legend = [
    line(1, { neededDrills: 300, packets: 2 }),
    line(2, { neededDrills: 150, packets: 1 }),
    line(3, { neededDrills: 500, packets: 3 }),
  ];

  it('adds up the bags of each line', () => {
    const supply = supplyOf(legend, [bag(1), bag(1, 140), bag(3), bag(null)], 200);
    expect(supply.map((each) => [each.suppliedDrills, each.bags, each.expectedBags])).toEqual([
      [340, 2, 2],
      [0, 0, 1],
      [200, 1, 3],
    ]);
    expect(supply.map((each) => each.verdict.kind)).toEqual(['enough', 'missing', 'short']);
  });

  it('adds up the canvas', () => {
    const bags = [bag(1), bag(1), bag(1), bag(null)];
    expect(summarise(supplyOf(legend, bags, 200), bags)).toEqual({
      colours: 3,
      missing: 2,
      short: 0,
      tight: 0,
      strays: 1,
      bags: 4,
      expectedBags: 6,
      bagsToFind: 4,
    });
    // The shelf reckons the bags to find without judging any colour.
    expect(heapToFind(legend, bags, 200)).toBe(4);
    expect(heapToFind(legend, [...bags, { ...bag(3), origin: 'stash' as const }], 200)).toBe(4);
    expect(heapToFind([], bags, 200)).toBe(0);
  });

  it('says it in one sentence', () => {
    const say = (bags: CountedBag[]) => supplyInWords(summarise(supplyOf(legend, bags, 200), bags));
    expect(supplyInWords(summarise([], []))).toContain('no colour list yet');
    expect(say([])).toBe('Nothing counted yet: 6 bags of 3 colours to find.');
    // A list without numbers of bags leaves one of each colour to find, and claims no number.
    const unknown = supplyOf([line(1, { packets: 0 }), line(2, { packets: 0 })], [], 200);
    expect(supplyInWords(summarise(unknown, []))).toBe(
      'Nothing counted yet: bags of 2 colours to find. The list does not say how many bags there are.',
    );
    expect(unknown.map((each) => each.bagsToFind)).toEqual([1, 1]);
    expect(say([bag(1), bag(3), bag(null)])).toBe(
      '1 colour without a bag, 2 with too few drills, of 3 colours; 4 bags still to find. 1 bag not in the colour list.',
    );
    expect(say([bag(1), bag(1), bag(2), bag(3), bag(3), bag(3)])).toBe(
      'Every colour is here with enough drills, 3 colours.',
    );
  });
});

describe('what was learned of the filler', () => {
  const two = [line(1, { neededDrills: 970, packets: 5 }), line(2, { neededDrills: 100, packets: 1 })];
  const printed = Array.from({ length: 5 }, (_, i) => bag(1, 200, `p${i}`));
  const counted = (drills: number): CountedBag => ({ ...bag(2, drills, 'c'), how: 'counted', spread: 0 });
  const chance = (...bags: CountedBag[]) => supplyOf(two, bags, 200)[0]!.chance;

  it('bags of printed number are judged by one that was counted: too few in it, too few in all', () => {
    const [under, usual, over] = [190, 200, 210].map((drills) => chance(...printed, counted(drills))) as [
      number,
      number,
      number,
    ];
    // By hand: 1,000 printed are 955, 1,000 and 1,045; of these 3 % are bad, and 970 are needed.
    expect(under).toBeGreaterThan(0.95);
    expect(usual).toBeGreaterThan(0.3);
    expect(usual).toBeLessThan(0.7);
    expect(over).toBeLessThan(0.05);
  });

  it('says nothing of bags that were counted themselves', () => {
    const own = Array.from({ length: 5 }, (_, i) => ({
      ...bag(1, 200, `o${i}`),
      how: 'counted' as const,
      spread: 0,
    }));
    expect(chance(...own, counted(190))).toBe(chance(...own, counted(210)));
  });

  it('bags of the seller count as sent, those of the stash do not', () => {
    const sent = (origin: CountedBag['origin']) => supplyOf(two, [{ ...bag(1), origin }], 200)[0]!;
    expect(
      (['kit', 'seller', 'stash', 'bought'] as const).map((origin) => sent(origin).fromSeller.bags),
    ).toEqual([...[1, 1, 0, 0]]);
    expect(sent('stash')).toMatchObject({ bags: 1, suppliedDrills: 200, bagsToFind: 5 });
    expect(sent('seller')).toMatchObject({ bagsToFind: 4 });
  });

  it('bags of no colour belong to none', () => {
    expect(supplyOf(two, [bag(null)], 200).map((each) => each.suppliedDrills)).toEqual([0, 0]);
  });
});
