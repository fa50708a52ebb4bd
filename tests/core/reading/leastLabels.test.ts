import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import { AsideCost, leastLabels } from '../../../src/core/reading/leastLabels';

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
        // Far apart, so that jumps pay, and close together, so that none does.
        const most = round % 2 === 0 ? 8 : 0.5;
        const costs = Float32Array.from({ length: labels }, () => most * random.uniform());
        const room = AsideCost.room(labels);
        room.set(costs, AsideCost.PAD);
        const least = Math.min(...costs);
        const told = new Float32Array(labels + 3);
        slope.spread(room, told, 3, labels);
        costs.forEach((_, to) => {
          const cheapest = Math.min(...costs.map((cost, from) => cost + slope.aside(to - from)));
          expect(told[3 + to]).toBeCloseTo(cheapest - least, 4);
        });
        expect([...told.subarray(0, 3)]).toEqual([0, 0, 0]);
      }
    });
  }

  it('is, for nodes taken two by two, that of two lines that go aside in two steps', () => {
    for (const step of [1, 2]) {
      const [slope, coarse] = [new AsideCost(step), new AsideCost(step).ofTogether(2)];
      for (let aside = 0; aside <= 24; aside++) {
        const ways = Array.from({ length: aside + 1 }, (_, first) =>
          [first, aside - first].reduce((sum, labels) => sum + slope.aside(labels), 0),
        );
        expect(coarse.aside(aside), `${aside} labels`).toBeCloseTo(2 * Math.min(...ways), 6);
      }
    }
  });
});

describe('lines that all look alike', () => {
  const [width, height, labels, period] = [49, 60, 53, 10];

  it('are followed from the corners, across noise and past a part in which none is seen', () => {
    for (let seed = 1; seed <= 8; seed++) {
      const random = seededRandom(seed);
      const [a, b, c] = [0, 1, 2].map(() => 6 * random.uniform()) as [number, number, number];
      const truth = (x: number, y: number) =>
        26 + 5 * Math.sin(x / 9 + a) + 4 * Math.sin(y / 8 + b) + 2 * Math.sin((x + y) / 7 + c);
      const blind = {
        x: 10 + 28 * random.uniform(),
        y: 10 + 40 * random.uniform(),
        r: 5 + 4 * random.uniform(),
      };
      const cost = new Float32Array(width * height * labels);
      for (let node = 0; node < width * height; node++) {
        const [x, y] = [node % width, Math.floor(node / width)];
        const isCorner = (x === 0 || x === width - 1) && (y === 0 || y === height - 1);
        const seen = Math.hypot(x - blind.x, y - blind.y) >= blind.r && random.uniform() > 0.3;
        for (let d = 0; d < labels; d++) {
          const far = d - truth(x, y);
          const beside = far - period * Math.round(far / period);
          const picture = 1 - (seen ? Math.exp(-(beside ** 2) / 2) : 0) + 0.25 * random.normal();
          cost[node * labels + d] =
            Math.max(0, Math.min(1.2, picture)) + (isCorner && Math.abs(far) > 4 ? 1000 : 0);
        }
      }
      const found = leastLabels(cost, width, height, labels, new AsideCost(2));
      const astray = found.filter(
        (label, node) => Math.abs(label - truth(node % width, Math.floor(node / width))) > period / 2,
      );
      expect(astray.length, `seed ${seed}`).toBeLessThan(0.005 * width * height);
    }
  });
});
