import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeChart } from '../../../src/core/cells/chart';
import { seededRandom } from '../../../src/core/chance/random';
import { type Regions, regionsOf } from '../../../src/core/placing/regions';
import { type BarCosts, onePerPlacement } from '../../../src/core/placing/search/barCosts';
import { BarTable } from '../../../src/core/placing/search/barTable';
import {
  boundOf,
  type ClimbGround,
  type Climbs,
  kernelClimbs,
  PlainClimbs,
} from '../../../src/core/placing/search/boundClimb';
import { ChainSplit } from '../../../src/core/placing/search/chainSplit';
import { fewestByHighs, grownRegion } from './outside';

/** The only region of a chart with prices that a seed draws. */
function groundOf(regions: Regions, bars: BarCosts, seed: number): ClimbGround {
  const random = seededRandom(seed);
  const lambda = Float32Array.from(regions.cells, () => (random.uniform() - 0.7) * bars[1]!);
  return { regions, region: 0, table: new BarTable(bars, regions.cells.length), lambda };
}

function climbed(climbs: Climbs, ground: ClimbGround, strides: Float32Array, enough = Infinity) {
  const own = { ...ground, lambda: ground.lambda.slice() };
  const climb = climbs.begin(own);
  const half = strides.length >> 1;
  const tops = [climb.go(strides, 0, half, enough), climb.go(strides, half, strides.length, enough)];
  climb.end();
  return { tops, lambda: own.lambda };
}

const falling = (steps: number, stride: number) =>
  Float32Array.from({ length: steps }, (_, step) => stride * (1 - step / steps));

/** Every way to lay a chain, one after the other. */
function dearly(price: readonly number[], bars: BarCosts): number {
  if (price.length === 0) return 0;
  let least = price[0]! + dearly(price.slice(1), bars);
  for (let size = 1; size < bars.length && size <= price.length; size++)
    least = Math.min(least, bars[size]! + dearly(price.slice(size), bars));
  return least;
}

describe('a chain', () => {
  it('is split as cheaply as the best of all ways, and its cells say how', () => {
    const chain = new ChainSplit(9);
    const quarter = fc.integer({ min: -6, max: 8 }).map((parts) => parts / 4);
    fc.assert(
      fc.property(
        fc.array(quarter, { minLength: 1, maxLength: 9 }),
        fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 6 }),
        (price, costs) => {
          const bars = Float64Array.from([0, ...costs.map((cost) => cost / 4)]);
          const table = new BarTable(bars, 9);
          for (const [i, each] of price.entries()) chain.price[i] = each * table.scale;
          expect(chain.solve(price.length, table) / table.scale).toBe(dearly(price, bars));
          chain.choose(price.length);
          // What is left out is paid for, and the runs between are bars at their cheapest.
          let cost = 0;
          let run = 0;
          for (let i = 0; i <= price.length; i++) {
            if (chain.taken[i] === 1 && i < price.length) run++;
            else {
              cost += table.runCost[run]! + (i < price.length ? price[i]! : 0);
              run = 0;
            }
          }
          expect(cost).toBe(dearly(price, bars));
        },
      ),
      { numRuns: 300 },
    );
  });
});

it('whole parts never cost more than what they are parts of', () => {
  const bars = Float64Array.from([0, 1 / 3, 0.7, 1.1]);
  const { barParts, drillBits, runParts, runCost, scale } = new BarTable(bars, 7);
  for (const [drills, cost] of bars.entries()) {
    expect((barParts[drills]! >> drillBits) / scale).toBeLessThanOrEqual(cost);
    expect((barParts[drills]! >> drillBits) / scale).toBeCloseTo(cost, 5);
    expect(barParts[drills]! & ((1 << drillBits) - 1)).toBe(drills);
  }
  for (const [length, cost] of runCost.entries()) expect(runParts[length]! / scale).toBeCloseTo(cost, 5);
});

describe('a bound', () => {
  it('is raised by the same numbers in WebAssembly and in TypeScript, on two regions by turns', () => {
    const kernel = kernelClimbs()!;
    expect(kernel).not.toBeNull();
    for (let seed = 1; seed <= 40; seed++) {
      const regions = regionsOf(grownRegion(seed, 5 + seed * 9, 30), null);
      const widest = [1, 2, 3, 4, 5, 7, 15, 50][seed % 8]!;
      const even = onePerPlacement(widest);
      const weighted = Float64Array.from(even, (_, drills) => (drills === 0 ? 0 : 4.5 + drills / 8));
      for (const bars of [even, weighted]) {
        const ground = groundOf(regions, bars, seed);
        const plain = new PlainClimbs(new ChainSplit(regions.cells.length));
        const strides = falling(30, bars[1]! / 5);
        expect(climbed(kernel, ground, strides), `seed ${seed}`).toEqual(climbed(plain, ground, strides));
      }
    }
  });

  it('stands for the prices that are kept, and rises', () => {
    const chain = new ChainSplit(400);
    for (const climbs of [kernelClimbs()!, new PlainClimbs(chain)]) {
      const ground = groundOf(regionsOf(grownRegion(3, 400, 40), null), onePerPlacement(7), 3);
      const before = boundOf(ground, chain, null);
      const { tops, lambda } = climbed(climbs, ground, falling(60, 0.2));
      expect(tops[0]).toBeGreaterThan(before);
      expect(tops[1]).toBeGreaterThanOrEqual(tops[0]!);
      expect(boundOf({ ...ground, lambda }, chain, null)).toBe(tops[1]);
    }
  });

  it('rests once it is enough', () => {
    for (const climbs of [kernelClimbs()!, new PlainClimbs(new ChainSplit(400))]) {
      const ground = groundOf(regionsOf(grownRegion(3, 400, 40), null), onePerPlacement(7), 3);
      const free = climbed(climbs, ground, falling(60, 0.2));
      const enough = free.tops[0]! - 1;
      const { tops } = climbed(climbs, ground, falling(60, 0.2), enough);
      expect(tops[0]).toBeGreaterThanOrEqual(enough);
      expect(tops[1]).toBe(tops[0]);
      expect(tops[1]).toBeLessThan(free.tops[1]!);
    }
  });

  it('proves no more than mixed-integer programming finds, whatever the prices', async () => {
    for (let seed = 1; seed <= 25; seed++) {
      const widest = [2, 3, 4, 7][seed % 4]!;
      const chart = grownRegion(seed, 12 + seed);
      const ground = groundOf(regionsOf(chart, null), onePerPlacement(widest), seed);
      const { tops } = climbed(kernelClimbs()!, ground, falling(100, 0.2));
      const optimum = await fewestByHighs(chart, widest);
      expect(tops[1]! / ground.table.scale, `seed ${seed}`).toBeLessThanOrEqual(optimum);
      // All but the last part of a placement of it.
      expect(Math.ceil(tops[1]! / ground.table.scale - 1e-6), `seed ${seed}`).toBeGreaterThanOrEqual(
        optimum - 1,
      );
    }
  });

  it('of chains as long as a canvas stays within what 32 bits hold', () => {
    // A row of 1,000, each drill dearer than the whole by four times: the dearest that prices may be.
    const regions = regionsOf(makeChart(1000, 2, new Uint16Array(2000).fill(1)), null);
    const bars = Float64Array.from([0, 60, 61]);
    for (const price of [-240, 240]) {
      const ground: ClimbGround = {
        regions,
        region: 0,
        table: new BarTable(bars, 1000),
        lambda: new Float32Array(2000).fill(price),
      };
      const chain = new ChainSplit(2000);
      const { scale } = ground.table;
      // Rows lay all, each in 500 bars of two, where that pays; columns lay nothing, or all with one bar each.
      const rows = price < 0 ? 2 * (500 * 61 + 1000 * price) : 0;
      const columns = price < 0 ? 1000 * (61 + 2 * price) : 0;
      expect(boundOf(ground, chain, null) / scale).toBe(rows + columns - 2000 * price);
      const { tops } = climbed(kernelClimbs()!, ground, new Float32Array(2));
      expect(tops[1]! / scale).toBe(rows + columns - 2000 * price);
    }
  });
});
