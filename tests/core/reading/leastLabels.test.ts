import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import { AsideCost } from '../../../src/core/reading/leastLabels';

describe('what a line costs beside its neighbour', () => {
  for (const [step, labels] of [
    [2, 53],
    [1, 17],
    [1, 9],
    [6, 1],
  ] as const) {
    it(`is the cheapest of all ways, ${labels} labels ${step} pixels apart`, () => {
      const random = seededRandom(labels);
      const slope = new AsideCost(step);
      for (let round = 0; round < 20; round++) {
        const costs = Float32Array.from({ length: labels }, () => 8 * random.uniform());
        slope.begin(labels).set(costs, AsideCost.PAD);
        const least = Math.min(...costs);
        const told = new Float32Array(labels + 3);
        slope.spread(told, 3, labels, least);
        costs.forEach((_, to) => {
          const cheapest = Math.min(...costs.map((cost, from) => cost + slope.aside(to - from)));
          expect(told[3 + to]).toBeCloseTo(cheapest - least, 4);
        });
        expect([...told.subarray(0, 3)]).toEqual([0, 0, 0]);
      }
    });
  }
});
