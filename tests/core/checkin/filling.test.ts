import { describe, expect, it } from 'vitest';
import type { CountedBag } from '../../../src/core/checkin/bag';
import { learnedFilling } from '../../../src/core/checkin/filling';

const bag = (drills: number, more: Partial<CountedBag> = {}): CountedBag => ({
  ...{
    id: String(drills),
    line: 1,
    label: '412',
    drills,
    how: 'counted',
    spread: 0,
    shared: [],
    origin: 'kit',
  },
  ...more,
});
const SIZES = [200, 1000];

/*
 * The mean of a normal law with a normal prior: precisions add up, and means are weighted by them (Gelman et al., Bayesian
 * Data Analysis, section 2.5, from memory). The prior is 0 ± 3 %, a bag errs by 1 % of its own: 1 ÷ 0.0009 = 1,111.1 and
 * 1 ÷ 0.0001 = 10,000. What is expected below was reckoned by hand.
 */
describe('what bags tell of their filler', () => {
  it('nothing, where all are of printed number, of no usual size, or of other makers', () => {
    const start = { deviation: 0, spread: 0.03, bags: 0 };
    expect(learnedFilling([], SIZES)).toEqual(start);
    expect(learnedFilling([bag(190, { how: 'nominal' })], SIZES)).toEqual(start);
    expect(learnedFilling([bag(231), bag(169), bag(500)], SIZES)).toEqual(start);
    expect(learnedFilling([bag(190, { origin: 'stash' }), bag(190, { origin: 'bought' })], SIZES)).toEqual(
      start,
    );
  });

  it('one counted bag: −5 % of 200 weighs ten thousand against 1,111', () => {
    const { deviation, spread, bags } = learnedFilling([bag(190)], SIZES);
    expect(deviation).toBeCloseTo(-0.045, 6);
    expect(spread).toBeCloseTo(0.0094868, 6);
    expect(bags).toBe(1);
  });

  it('two counted bags of the kit and its seller: −5 % and +1 %, to their mean', () => {
    const { deviation, spread, bags } = learnedFilling([bag(190), bag(1010, { origin: 'seller' })], SIZES);
    // (−500 + 100) ÷ 21,111.1
    expect(deviation).toBeCloseTo(-0.0189474, 6);
    expect(spread).toBeCloseTo(Math.sqrt(1 / 21_111.111), 7);
    expect(bags).toBe(2);
  });

  it('a weighed bag tells less, by what the weighing errs', () => {
    // 2 of 200 is 1 % more: 1 ÷ (0.0001 + 0.0001) = 5,000; −250 ÷ 6,111.1
    const { deviation } = learnedFilling([bag(190, { how: 'weighed', spread: 2 })], SIZES);
    expect(deviation).toBeCloseTo(-0.0409091, 6);
  });

  it('bags weighed against one sample err together; against two samples each tells for itself', () => {
    const weighed = (source: string) =>
      bag(190, { how: 'weighed', spread: 0, shared: [{ source, spread: 4 }] });
    // Two of one sample: 20,000 for themselves, with 2 % in common: 1 ÷ (0.00005 + 0.0004) = 2,222.2; −111.11 ÷ 3,333.3
    const same = learnedFilling([weighed('a'), weighed('a')], SIZES);
    expect(same.deviation).toBeCloseTo(-0.0333333, 6);
    expect(same.bags).toBe(2);
    // Of two samples: 2 × 1 ÷ (0.0001 + 0.0004) = 4,000; −200 ÷ 5,111.1
    expect(learnedFilling([weighed('a'), weighed('b')], SIZES).deviation).toBeCloseTo(-0.0391304, 6);
    // A counted one beside a weighed one stands for itself.
    expect(learnedFilling([weighed('a'), bag(200)], SIZES).deviation).toBeCloseTo(-100 / 13_111.111, 6);
  });

  it('a bag is of the size that it comes near to: up to 15 % off, not more', () => {
    expect(learnedFilling([bag(230)], SIZES).deviation).toBeCloseTo(0.135, 6);
    expect(learnedFilling([bag(1150)], SIZES).deviation).toBeCloseTo(0.135, 6);
    expect(learnedFilling([bag(1151)], SIZES).bags).toBe(0);
  });
});
