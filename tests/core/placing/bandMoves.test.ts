import { describe, expect, it } from 'vitest';
import { makeChart } from '../../../src/core/cells/chart';
import { seededRandom } from '../../../src/core/chance/random';
import { type Regions, regionsOf } from '../../../src/core/placing/regions';
import { BandMoves } from '../../../src/core/placing/search/bandMoves';
import { onePerPlacement, runCosts } from '../../../src/core/placing/search/barCosts';
import { BarTable } from '../../../src/core/placing/search/barTable';
import { ALONG, chainWays, DOWN } from '../../../src/core/placing/search/chains';

/** What labels cost, counted run by run. */
function costOf({ cells, up, left }: Regions, labels: Uint8Array, runCost: Float64Array): number {
  const [along, down] = [new Int32Array(cells.length), new Int32Array(cells.length)];
  let cost = 0;
  for (let place = 0; place < cells.length; place++) {
    const way = labels[place] === ALONG ? along : down;
    const before = labels[place] === ALONG ? (left[place] === 1 ? place - 1 : -1) : up[place]!;
    const run = before !== -1 && labels[before] === labels[place] ? way[before]! : 0;
    way[place] = run + 1;
    cost += runCost[run + 1]! - runCost[run]!;
  }
  return cost;
}

function rectangle(width: number, height: number): Regions {
  return regionsOf(makeChart(width, height, new Uint16Array(width * height).fill(1)), null);
}

function moved(
  regions: Regions,
  labels: Uint8Array,
  height: number,
  widest: number,
  rows = true,
): Uint8Array {
  const now = labels.slice();
  const [along, down] = chainWays(regions);
  const table = new BarTable(onePerPlacement(widest), 60);
  new BandMoves(now.length).move(now, rows ? along : down, [0, now.length], height, table, () => 0);
  return now;
}

describe('moves of several rows at once', () => {
  it('pile up bars across that no row would begin by itself', () => {
    // Ten by seven squares, bars of seven: rows take two bars each; three columns and seven rows of seven take ten.
    const regions = rectangle(10, 7);
    const runCost = runCosts(onePerPlacement(7), 60);
    const rows = new Uint8Array(70).fill(ALONG);
    expect(costOf(regions, rows, runCost)).toBe(14);
    expect(costOf(regions, moved(regions, rows, 1, 7), runCost)).toBe(14);
    expect(costOf(regions, moved(regions, rows, 7, 7), runCost)).toBe(10);
  });

  it('do so with columns too', () => {
    const regions = rectangle(7, 10);
    const runCost = runCosts(onePerPlacement(7), 60);
    const columns = new Uint8Array(70).fill(DOWN);
    expect(costOf(regions, moved(regions, columns, 7, 7, false), runCost)).toBe(10);
  });

  it('find the best of all ways to label a stretch, whatever runs into it from its ends', () => {
    for (let seed = 1; seed <= 120; seed++) {
      const random = seededRandom(seed);
      const within = (from: number, to: number) => from + Math.floor(random.uniform() * (to - from + 1));
      const widest = within(2, 6);
      const height = within(2, 5);
      const width = within(5, 13);
      const regions = rectangle(width, height);
      const runCost = runCosts(onePerPlacement(widest), 60);
      const labels = Uint8Array.from({ length: width * height }, () => 0);
      // One stretch that is free; beside it the labels differ from row to row, or the region ends there.
      const [first, last] = [within(0, 2), width - 1 - within(0, 2)];
      for (let x = 0; x < width; x++) {
        const label = within(0, 1);
        for (let y = 0; y < height; y++)
          labels[y * width + x] = x >= first && x <= last ? label : (y + x) % 2;
      }
      let best = Infinity;
      const span = last - first + 1;
      for (let choice = 0; choice < 2 ** span; choice++) {
        const tried = labels.slice();
        for (let x = first; x <= last; x++)
          for (let y = 0; y < height; y++) tried[y * width + x] = (choice >> (x - first)) & 1;
        best = Math.min(best, costOf(regions, tried, runCost));
      }
      const now = moved(regions, labels, height, widest);
      expect(costOf(regions, now, runCost), `seed ${seed}`).toBe(best);
    }
  });

  it('never cost a placement, on a region of any shape', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = seededRandom(seed);
      const cells = Uint16Array.from({ length: 30 * 20 }, () => (random.uniform() < 0.8 ? 1 : 0));
      const regions = regionsOf(makeChart(30, 20, cells), null);
      const widest = 2 + (seed % 6);
      const runCost = runCosts(onePerPlacement(widest), 60);
      let labels: Uint8Array = Uint8Array.from({ length: regions.cells.length }, () =>
        Math.floor(random.uniform() * 2),
      );
      for (const rows of [true, false]) {
        for (let height = widest; height > 0; height--) {
          const now = moved(regions, labels, height, widest, rows);
          expect(costOf(regions, now, runCost), `seed ${seed}, ${height}`).toBeLessThanOrEqual(
            costOf(regions, labels, runCost),
          );
          labels = now;
        }
      }
    }
  });
});
