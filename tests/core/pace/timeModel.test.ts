import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import { EFFORTS, type Effort } from '../../../src/core/pace/effort';
import {
  fitTimeModel,
  foretold,
  leastSquaresAboveZero,
  minutesFor,
  type TimedEffort,
  USUAL_MODEL,
  USUAL_SECONDS,
} from '../../../src/core/pace/timeModel';

/** Sittings of a made-up hand whose seconds are known. @param strays share by which one sitting strays */
function sittingsOf(seconds: Effort, count: number, strays: number, seed: number): TimedEffort[] {
  const random = seededRandom(seed);
  return Array.from({ length: count }, () => {
    const effort: Effort = {
      colours: 1 + Math.floor(random.uniform() * 14),
      singles: Math.floor(random.uniform() * 500),
      shortBars: Math.floor(random.uniform() * 150),
      longBars: Math.floor(random.uniform() * 60),
      turns: Math.floor(random.uniform() * 8),
      confetti: Math.floor(random.uniform() * 200),
    };
    const whole = EFFORTS.reduce((sum, kind) => sum + effort[kind] * seconds[kind], 0);
    return { effort, minutes: (whole * Math.max(0.1, 1 + strays * random.normal())) / 60 };
  });
}

const SLOW: Effort = { colours: 70, singles: 4, shortBars: 6.5, longBars: 8, turns: 12, confetti: 2 };

describe('the time model', () => {
  it('begins with usual seconds, and adds up by hand', () => {
    for (const kind of EFFORTS) expect(fitTimeModel([]).seconds[kind]).toBeCloseTo(USUAL_SECONDS[kind], 9);
    // 2 colours × 45 s, 100 × 2.8 s, 10 × 4 s, 5 × 6 s, one turn of 8 s, 20 × 1.2 s: 472 s.
    const effort = { colours: 2, singles: 100, shortBars: 10, longBars: 5, turns: 1, confetti: 20 };
    const { expected, low, high } = minutesFor(USUAL_MODEL, effort);
    expect(expected).toBeCloseTo(472 / 60, 6);
    expect(low).toBeLessThan(expected);
    expect(high - expected).toBeCloseTo(expected - low, 6);
    expect(
      minutesFor(USUAL_MODEL, {
        ...effort,
        singles: 0,
        shortBars: 0,
        longBars: 0,
        turns: 0,
        confetti: 0,
        colours: 0,
      }),
    ).toEqual({ expected: 0, low: 0, high: 0 });
  });

  it('recovers known seconds within its stated spread', () => {
    const { seconds, covariance } = fitTimeModel(sittingsOf(SLOW, 300, 0.15, 5));
    EFFORTS.forEach((kind, i) => {
      const sd = Math.sqrt(covariance[i]![i]!);
      expect(Math.abs(seconds[kind] - SLOW[kind]), kind).toBeLessThan(3 * sd);
    });
    // What is done often is known well.
    expect(Math.abs(seconds.singles / SLOW.singles - 1)).toBeLessThan(0.06);
    expect(Math.abs(seconds.colours / SLOW.colours - 1)).toBeLessThan(0.15);
  });

  it('holds with its band as often as it says, four times in five', () => {
    let inBand = 0;
    let all = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const sittings = sittingsOf(SLOW, 45, 0.2, seed);
      const model = fitTimeModel(sittings.slice(0, 35));
      for (const { effort, minutes } of sittings.slice(35)) {
        const { low, high } = minutesFor(model, effort);
        all++;
        if (minutes >= low && minutes <= high) inBand++;
      }
    }
    expect(all).toBe(400);
    expect(inBand / all).toBeGreaterThan(0.72);
    expect(inBand / all).toBeLessThan(0.9);
  });

  it('stays near the usual after a single sitting, and moves towards a slow hand with several', () => {
    const sittings = sittingsOf(SLOW, 20, 0.05, 3);
    const [one, twenty] = [fitTimeModel(sittings.slice(0, 1)), fitTimeModel(sittings)];
    const off = (seconds: Effort) => Math.abs(seconds.singles - SLOW.singles);
    expect(off(one.seconds)).toBeGreaterThan(off(twenty.seconds));
    expect(one.seconds.singles).toBeGreaterThan(USUAL_SECONDS.singles * 0.9);
    expect(twenty.covariance[1]![1]!).toBeLessThan(one.covariance[1]![1]!);
    expect(twenty.sittings).toBe(20);
  });

  it('is hardly moved by a clock that ran on', () => {
    const sittings = sittingsOf(SLOW, 30, 0.1, 9);
    const spoilt = sittings.map((sitting, i) =>
      i === 4 ? { ...sitting, minutes: sitting.minutes * 12 } : sitting,
    );
    const [plain, moved] = [fitTimeModel(sittings), fitTimeModel(spoilt)];
    expect(Math.abs(moved.seconds.singles / plain.seconds.singles - 1)).toBeLessThan(0.12);
  });

  it('foretells each of the last sittings from those before it alone', () => {
    const sittings = sittingsOf(SLOW, 14, 0.1, 2);
    const last = foretold(sittings);
    expect(last).toHaveLength(10);
    expect(last[0]!.minutes).toBe(sittings[4]!.minutes);
    expect(last[0]!.foretold).toEqual(minutesFor(fitTimeModel(sittings.slice(0, 4)), sittings[4]!.effort));
    expect(foretold([])).toEqual([]);
  });

  it('finds the least squares above zero (conditions of Karush, Kuhn and Tucker)', () => {
    const random = seededRandom(4);
    for (let round = 0; round < 30; round++) {
      const rows = Array.from({ length: 9 }, () => Array.from({ length: 4 }, () => random.normal()));
      const at = (a: number, b: number) =>
        rows.reduce((sum, row) => sum + row[a]! * row[b]!, a === b ? 0.1 : 0);
      const precision = [0, 1, 2, 3].map((a) => [0, 1, 2, 3].map((b) => at(a, b)));
      const pull = [0, 1, 2, 3].map(() => 3 * random.normal());
      const found = leastSquaresAboveZero(precision, pull, [1, 1, 1, 1]);
      found.forEach((value, a) => {
        const gradient = precision[a]!.reduce((sum, p, b) => sum + p * found[b]!, 0) - pull[a]!;
        expect(value).toBeGreaterThanOrEqual(0);
        if (value > 0) expect(Math.abs(gradient)).toBeLessThan(1e-6);
        else expect(gradient).toBeGreaterThan(-1e-6);
      });
    }
  });
});
