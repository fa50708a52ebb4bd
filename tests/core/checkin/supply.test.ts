import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  arithmeticOf,
  type CountedBag,
  judge,
  nominalSpread,
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
    expect(verdictInWords({ kind: 'missing' })).toBe('missing');
    expect(verdictInWords({ kind: 'short', by: 1240 })).toBe('short by 1,240');
    expect(verdictInWords({ kind: 'tight', over: 1 })).toBe('tight');
    expect(verdictInWords({ kind: 'spare', over: 274 })).toBe('spare 274');
  });
});

describe('supply of a canvas', () => {
  it('adds the spreads of bags as variances', () => {
    const [supply] = supplyOf(
      [line(1, { neededDrills: 700 })],
      [bag(1), bag(1), { ...bag(1), how: 'counted', spread: 0 }],
      200,
    );
    expect(supply!.spread).toBeCloseTo(Math.sqrt(2) * 6, 9);
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
    expect(reasonInWords(supply!)).toBe('Running out is almost certain, above 99 %.');
    expect(reasonInWords({ ...supply!, lastsUntilSection: 31 })).toContain('It lasts until section 31.');
    // 500 ÷ 0.97 = 515.5; 400 × 0.97 = 388; two bags with a standard deviation of 6 each: 2 × 8.49 = 17.
    const steps = arithmeticOf(supply!, { handled: 200, thrown: 6, share: 0.03 }).join(' ');
    expect(steps).toContain('500 ÷ (1 − 3.0 %) = 516');
    expect(steps).toContain('400 in 2 bags, give or take 17; good ones of these about 388');
    expect(spokenResult('412', supply!, 'pot 7')).toBe('4 1 2: short by 100. One bag still to find. Pot 7.');
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
  });

  it('says it in one sentence', () => {
    const say = (bags: CountedBag[]) => supplyInWords(summarise(supplyOf(legend, bags, 200), bags));
    expect(supplyInWords(summarise([], []))).toContain('no sheet yet');
    expect(say([])).toBe('Nothing counted yet: 6 bags in 3 colours to find.');
    expect(say([bag(1), bag(3), bag(null)])).toBe(
      '1 colour without a bag, 2 short, of 3 colours; 4 bags still to find. 1 bag on no line of the sheet.',
    );
    expect(say([bag(1), bag(1), bag(2), bag(3), bag(3), bag(3)])).toBe(
      'Every colour is here and enough, 3 colours.',
    );
  });
});
