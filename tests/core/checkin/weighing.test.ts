import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import { ScaleLines, type Settling, WeightSettler } from '../../../src/core/checkin/scaleReader';
import { POCKET_SCALE, type ScaleHabits, simulatedScale } from '../../../src/core/checkin/simulatedScale';
import {
  countByWeight,
  expanded,
  sampleToSettle,
  USUAL_DRILL_VARIATION,
  weighedInWords,
} from '../../../src/core/checkin/weighing';

const setup = { resolutionGrams: 0.01, drillVariation: USUAL_DRILL_VARIATION };

/** Loads a scale and reads it through the protocol until it settles or gives up. */
function weigh(
  scale: ReturnType<typeof simulatedScale>,
  grams: number,
  habits: ScaleHabits = POCKET_SCALE,
): Settling {
  const lines = new ScaleLines();
  const settler = new WeightSettler(habits.resolutionGrams);
  scale.load(grams);
  for (;;) {
    for (const reading of lines.push(scale.line())) {
      const settling = settler.push(reading);
      if (settling.kind !== 'waiting') return settling;
    }
  }
}

describe('count by weight', () => {
  it('is the ratio of the weights', () => {
    expect(countByWeight({ pieces: 50, grams: 0.31 }, 1.72, 0.48, setup).drills).toBeCloseTo(200, 9);
  });

  // JCGM 100:2008, 5.1.6: for a product of powers the relative variances add; 4.3.7: a step a has variance a² ÷ 12.
  it('has the uncertainty of the first-order rule, worked by hand', () => {
    const { drills, uncertainty } = countByWeight({ pieces: 100, grams: 0.6 }, 7.0, 1.0, setup);
    expect(drills).toBeCloseTo(1000, 9);
    const reading = 0.01 ** 2 / 12;
    const relative = Math.sqrt((2 * reading) / 36 + reading / 0.36 + 0.0025 / 100 + 0.0025 / 1000);
    expect(uncertainty).toBeCloseTo(1000 * relative, 9);
    expect(weighedInWords({ drills, uncertainty })).toBe('1,000 drills, give or take 15');
  });

  it('is met by its stated interval in at least 95 of 100 seeded weighings on the simulated scale', () => {
    let inside = 0;
    for (let seed = 1; seed <= 100; seed++) {
      const random = seededRandom(seed);
      const scale = simulatedScale(POCKET_SCALE, seed);
      const drill = () => 0.0062 * (1 + USUAL_DRILL_VARIATION * random.normal());
      const heap = (pieces: number) =>
        Array.from({ length: pieces }, drill).reduce((sum, grams) => sum + grams, 0);
      const truth = 1240 + Math.round(30 * random.normal());
      const sample = weigh(scale, heap(100));
      const empty = weigh(scale, 0.48);
      const full = weigh(scale, 0.48 + heap(truth));
      if (sample.kind !== 'settled' || empty.kind !== 'settled' || full.kind !== 'settled')
        throw new Error('not settled');
      const count = countByWeight({ pieces: 100, grams: sample.grams }, full.grams, empty.grams, setup);
      if (Math.abs(count.drills - truth) <= expanded(count)) inside++;
    }
    expect(inside).toBeGreaterThanOrEqual(95);
  });

  it('refuses weights that make no sense, in words', () => {
    expect(() => countByWeight({ pieces: 0, grams: 1 }, 2, 1, setup)).toThrow('Weigh a counted sample first');
    expect(() => countByWeight({ pieces: 10, grams: 0 }, 2, 1, setup)).toThrow('more than 0 grams');
    expect(() => countByWeight({ pieces: 10, grams: 1 }, 1, 1, setup)).toThrow(
      'must weigh more than the empty one',
    );
  });
});

describe('the sample to count', () => {
  it('is the least that settles the question, neither more nor less', () => {
    const pieces = sampleToSettle(1300, 1240, 0.0062, setup)!;
    const width = (n: number) =>
      expanded(countByWeight({ pieces: n, grams: n * 0.0062 }, 1300 * 0.0062, 0, setup));
    expect(width(pieces)).toBeLessThanOrEqual(60);
    expect(width(pieces - 1)).toBeGreaterThan(60);
  });

  it('is small where the numbers lie far apart, and none where they lie too close', () => {
    expect(sampleToSettle(2000, 1000, 0.0062, setup)).toBe(10);
    expect(sampleToSettle(1241, 1240, 0.0062, setup)).toBeNull();
  });
});

describe('scale protocol', () => {
  it('is read in whatever pieces it arrives', () => {
    const text = 'W +12.34 g S\r\nW -0.01 g U\nW OVER\n';
    const whole = new ScaleLines().push(text);
    const lines = new ScaleLines();
    expect([...text].flatMap((letter) => lines.push(letter))).toEqual(whole);
    expect(whole).toEqual([{ grams: 12.34, stable: true }, { grams: -0.01, stable: false }, 'over']);
  });

  it('passes over what is no reading', () => {
    expect(new ScaleLines().push('hello\nW 12 g S\nW +1e5 g S\n\u0000\u0001\nW +5 g S\n')).toEqual([
      { grams: 5, stable: true },
    ]);
  });

  it('does not pile up noise without an end', () => {
    const lines = new ScaleLines();
    for (let i = 0; i < 1000; i++) expect(lines.push('x'.repeat(1000))).toEqual([]);
    expect(lines.push('\nW +1 g S\n')).toEqual([{ grams: 1, stable: true }]);
  });
});

describe('settling', () => {
  it('waits for the pan to come to rest and then is right to a step', () => {
    const settled = weigh(simulatedScale(POCKET_SCALE, 5), 8.17);
    expect(settled).toMatchObject({ kind: 'settled' });
    expect((settled as { grams: number }).grams).toBeCloseTo(8.17, 1);
  });

  it('takes no weight from readings that the scale itself calls unstable', () => {
    const settler = new WeightSettler(0.01);
    for (let i = 0; i < 50; i++) expect(settler.push({ grams: 5, stable: false }).kind).toBe('waiting');
  });

  it('gives up on a scale that never settles, and tells a load too heavy', () => {
    const restless = { ...POCKET_SCALE, restless: true };
    expect(weigh(simulatedScale(restless, 1), 5, restless)).toEqual({ kind: 'restless' });
    expect(weigh(simulatedScale(POCKET_SCALE, 1), 500)).toEqual({ kind: 'over' });
  });

  it('gives the same readings from the same seed', () => {
    const readings = (seed: number) => {
      const scale = simulatedScale(POCKET_SCALE, seed);
      scale.load(3);
      return Array.from({ length: 30 }, () => scale.line());
    };
    expect(readings(4)).toEqual(readings(4));
    expect(readings(4)).not.toEqual(readings(5));
  });
});
