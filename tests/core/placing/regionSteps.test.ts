import { describe, expect, it } from 'vitest';
import { makeChart } from '../../../src/core/cells/chart';
import { seededRandom } from '../../../src/core/chance/random';
import { type Regions, regionsOf } from '../../../src/core/placing/regions';
import { type BarCosts, onePerPlacement } from '../../../src/core/placing/search/barCosts';
import { BarTable } from '../../../src/core/placing/search/barTable';
import { KernelSteps } from '../../../src/core/placing/search/kernelSteps';
import { PlainSteps } from '../../../src/core/placing/search/plainSteps';
import type { RegionSteps } from '../../../src/core/placing/search/regionSteps';
import { fewestByHighs, grownRegion } from './outside';

/** Regions of a chart of few colours, some of them large, some with bays and islands. */
function someRegions(seed: number): Regions {
  const random = seededRandom(seed);
  const [width, height] = [24, 30];
  const cells = new Uint16Array(width * height);
  for (let cell = 0; cell < cells.length; cell++) {
    const likeAbove = cell >= width && random.uniform() < 0.5;
    const likeBefore = cell % width > 0 && random.uniform() < 0.7;
    const own = 1 + Math.floor(random.uniform() * 3);
    cells[cell] = likeAbove ? cells[cell - width]! : likeBefore ? cells[cell - 1]! : own;
  }
  return regionsOf(makeChart(width, height, cells), null);
}

/** All that the steps come to in one region, step by step. */
function walked(steps: RegionSteps, regions: Regions, region: number, bars: BarCosts, seed: number) {
  const random = seededRandom(seed);
  const size = regions.starts[region + 1]! - regions.starts[region]!;
  const table = new BarTable(bars.subarray(0, size + 1), size);
  const widest = table.bars.length - 1;
  steps.begin(region, table);
  steps.tryOut(Uint8Array.from({ length: size }, () => Math.floor(random.uniform() * 2)));
  const seen: unknown[] = [];
  const see = () => seen.push(steps.cost(), [...steps.tried()].join(''));
  see();
  for (const heat of [0.3, 0.1, 0]) {
    steps.moveRows(heat);
    see();
    steps.moveColumns(heat);
    see();
    for (let height = widest; height > 1; height--) {
      steps.moveBands(height, heat);
      see();
    }
  }
  steps.restartNoise();
  steps.moveRows(0.2);
  see();
  steps.price(Float32Array.from({ length: size }, () => (random.uniform() - 0.7) * bars[1]!));
  seen.push(steps.bound());
  steps.passBack(false);
  for (let sweep = 0; sweep < 3; sweep++) {
    steps.passOn();
    // Zero and minus zero are one price.
    seen.push([...steps.priced()].map((price) => price + 0).join());
    see();
    steps.moveRows(0);
    steps.moveColumns(0);
    see();
    steps.passBack(true);
    seen.push([...steps.priced()].map((price) => price + 0).join(), steps.bound());
  }
  return seen;
}

const SEVERAL: [string, BarCosts][] = [
  ...[1, 2, 3, 4, 5, 8, 9, 13, 16, 21].map((widest): [string, BarCosts] => [
    `bars of ${widest}`,
    onePerPlacement(widest),
  ]),
  ['seconds', Float64Array.from([0, 1.7, 2.4, 2.9, 3.6, 3.8, 4.9])],
];

describe('steps in WebAssembly', () => {
  it.each(SEVERAL)('come to the same as those in TypeScript, to the last bit: %s', (_, bars) => {
    for (let seed = 1; seed <= 2; seed++) {
      const regions = someRegions(seed);
      const [kernel, plain] = [KernelSteps.of(regions), new PlainSteps(regions)];
      if (!kernel) throw new Error('This machine cannot run them.');
      regions.lines.forEach((_, region) => {
        const size = regions.starts[region + 1]! - regions.starts[region]!;
        const label = `seed ${seed}, region ${region} of ${size}`;
        const expected = walked(plain, regions, region, bars, seed);
        expect(walked(kernel, regions, region, bars, seed), label).toEqual(expected);
      });
    }
  });

  it('hold for each search what it began with, when several take turns', () => {
    const bars = onePerPlacement(3);
    const [one, other] = [someRegions(5), someRegions(6)];
    const alone = walked(KernelSteps.of(one)!, one, 0, bars, 1);
    const [first, second] = [KernelSteps.of(one)!, KernelSteps.of(other)!];
    walked(first, one, 0, bars, 2);
    walked(second, other, 0, bars, 3);
    expect(walked(first, one, 0, bars, 1)).toEqual(alone);
  });
});

describe('messages', () => {
  it.each([2, 3, 5])(
    'by themselves prove most of what mixed-integer programming finds with bars of %i',
    async (widest) => {
      const bars = onePerPlacement(widest);
      const sums = { proven: 0, fewest: 0 };
      for (let seed = 1; seed <= 12; seed++) {
        const chart = grownRegion(seed, 40);
        const regions = regionsOf(chart, null);
        const size = regions.cells.length;
        const table = new BarTable(bars, size);
        for (const steps of [KernelSteps.of(regions)!, new PlainSteps(regions)]) {
          steps.begin(0, table);
          steps.tryOut(new Uint8Array(size));
          steps.price(new Float32Array(size));
          steps.passBack(false);
          for (let sweep = 0; sweep < 40; sweep++) {
            steps.passOn();
            steps.passBack(true);
          }
          const bound = Math.ceil(steps.bound() / table.scale - 1e-6);
          const fewest = await fewestByHighs(chart, widest);
          expect(bound, `seed ${seed}`).toBeLessThanOrEqual(fewest);
          sums.proven += bound;
          sums.fewest += fewest;
        }
      }
      expect(sums.proven).toBeGreaterThan(0.97 * sums.fewest);
    },
  );
});
