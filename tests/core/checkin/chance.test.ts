import { describe, expect, it } from 'vitest';
import { type SeededRandom, seededRandom } from '../../../src/core/chance/random';
import {
  chanceInWords,
  chanceOfRunningOut,
  learnedTrash,
  TRASH_START,
} from '../../../src/core/checkin/chance';

const KITS = 10_000;

/** A draw from the gamma law (Marsaglia & Tsang, 2000), so that the share is drawn without our own quantiles. */
function drawnGamma(random: SeededRandom, shape: number): number {
  const d = shape - 1 / 3;
  for (;;) {
    const z = random.normal();
    const v = (1 + z / Math.sqrt(9 * d)) ** 3;
    if (v > 0 && Math.log(random.uniform()) < (z * z) / 2 + d - d * v + d * Math.log(v)) return d * v;
  }
}

/** Share of simulated kits that run out: every drill is thrown or kept one by one, nothing is taken from our formula. */
function simulatedShare(
  seed: number,
  needed: number,
  here: { drills: number; spread: number },
  trash: { handled: number; thrown: number },
): number {
  const random = seededRandom(seed);
  let runOut = 0;
  for (let kit = 0; kit < KITS; kit++) {
    const thrown = drawnGamma(random, trash.thrown);
    const share = thrown / (thrown + drawnGamma(random, trash.handled - trash.thrown));
    const drills = Math.round(here.drills + here.spread * random.normal());
    let good = 0;
    for (let drill = 0; drill < drills; drill++) if (random.uniform() >= share) good++;
    if (good < needed) runOut++;
  }
  return runOut / KITS;
}

describe('chance of running out', () => {
  it.each([
    [190, { drills: 200, spread: 0 }, TRASH_START],
    [193, { drills: 200, spread: 6 }, TRASH_START],
    [380, { drills: 400, spread: 8.5 }, TRASH_START],
    [560, { drills: 600, spread: 10.4 }, { handled: 1000, thrown: 40 }],
    [960, { drills: 1000, spread: 30 }, { handled: 5000, thrown: 100 }],
    [150, { drills: 200, spread: 6 }, TRASH_START],
  ])('is met by 10,000 simulated kits: %i needed of %j', (needed, here, trash) => {
    const stated = chanceOfRunningOut(trash)(needed, here);
    const met = simulatedShare(20260301, needed, here, trash);
    // Four standard errors of a share over 10,000 kits, and a thousandth for the whole numbers.
    const allowed = 4 * Math.sqrt(Math.max(stated * (1 - stated), 1e-4) / KITS) + 0.001;
    expect(Math.abs(stated - met)).toBeLessThan(allowed);
  });

  it('is nothing for what is not needed and certain without a bag', () => {
    const chance = chanceOfRunningOut(TRASH_START);
    expect(chance(0, { drills: 0, spread: 0 })).toBe(0);
    expect(chance(10, { drills: 0, spread: 0 })).toBe(1);
  });

  it('keeps what it worked out apart by need, drills, spread and trash', () => {
    const wishes = [
      [385, { drills: 400, spread: 8 }, TRASH_START],
      [385, { drills: 400, spread: 9 }, TRASH_START],
      [385, { drills: 401, spread: 8 }, TRASH_START],
      [386, { drills: 400, spread: 8 }, TRASH_START],
      [385, { drills: 400, spread: 8 }, { handled: 2000, thrown: 66 }],
    ] as const;
    const told = () => wishes.map(([needed, here, trash]) => chanceOfRunningOut(trash)(needed, here));
    const first = told();
    expect(new Set(first).size).toBe(wishes.length);
    expect(told()).toEqual(first);
  });

  it('grows with the trash share', () => {
    const here = { drills: 400, spread: 8 };
    const clean = chanceOfRunningOut(learnedTrash([{ handled: 2000, thrown: 10 }]))(385, here);
    const dirty = chanceOfRunningOut(learnedTrash([{ handled: 2000, thrown: 120 }]))(385, here);
    expect(clean).toBeLessThan(dirty);
  });

  it.each([
    [0.001, 'Very unlikely to run out (below 1 %)'],
    [0.03, 'Unlikely to run out (3 %)'],
    [0.2, 'May run out (20 %)'],
    [0.5, 'As likely as not to run out (50 %)'],
    [0.8, 'Likely to run out (80 %)'],
    [0.999, 'Almost certain to run out (above 99 %)'],
  ])('%d is said as “%s”', (chance, words) => expect(chanceInWords(chance)).toBe(words));
});

describe('trash share', () => {
  it('starts at 3 % and moves with what is recorded', () => {
    expect(learnedTrash([]).share).toBeCloseTo(0.03, 10);
    expect(learnedTrash([{ handled: 800, thrown: 34 }])).toEqual({ handled: 1000, thrown: 40, share: 0.04 });
  });
});
