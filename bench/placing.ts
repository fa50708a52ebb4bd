import { performance } from 'node:perf_hooks';
import { glasshouseKit, kingfisherKit, lanternKit } from '../demo/kits';
import type { Chart } from '../src/core/cells/chart';
import { roundsFor } from '../src/core/placing/plan';
import { type Regions, regionsOf } from '../src/core/placing/regions';
import { onePerPlacement } from '../src/core/placing/search/barCosts';
import { PlacementSearch } from '../src/core/placing/search/fewest';
import { CHART_KINDS, seededChart } from './seededCharts';

/*
 * How near plans come to the best proven bound, and how long that takes beside rows alone, in one run.
 * npx tsx bench/placing.ts [seconds, 5 where left out] [widest tips, 3,4,7,10,15]
 * [charts, mixed,blobs,smooth,confetti,demo]
 */
const SECONDS = Number(process.argv[2] ?? 5);
const TIPS = (process.argv[3] ?? '3,4,7,10,15').split(',').map(Number);
const KINDS = process.argv[4]?.split(',') ?? [...CHART_KINDS, 'demo'];
const ROUNDS = 99;

const sum = (values: Float64Array) => values.reduce((total, each) => total + each, 0);
const over = (cost: number, bound: number) => `+${((cost / bound - 1) * 100).toFixed(2)} %`;

function search(regions: Regions, widest: number) {
  const bars = onePerPlacement(widest);
  return new PlacementSearch(regions, () => bars, 1);
}

function line(name: string, chart: Chart, widest: number): void {
  const from = performance.now();
  const regions = regionsOf(chart, null);
  const first = search(regions, widest);
  const atOnce = performance.now() - from;
  const better = first.cost;
  const rows = sum(first.search.alongCosts);
  first.run(0);
  const quick = { cost: first.cost, ms: performance.now() - from };
  first.run(ROUNDS, () => performance.now() - from > SECONDS * 1000);
  const { cost, bound } = first;
  const taken = (performance.now() - from) / 1000;
  console.log(
    `  ${name.padEnd(10)} K ${String(widest).padStart(2)}  rows ${over(rows, bound).padStart(9)}  better of two ${over(better, bound).padStart(9)}  quick ${over(quick.cost, bound).padStart(8)} (${(quick.ms / atOnce).toFixed(1)} × the first plan)  searched ${over(cost, bound).padStart(8)}: ${Math.round(cost)} of at least ${Math.round(bound)}, ${taken.toFixed(1)} s`,
  );
}

/** Each square's piece of so many squares a side. */
function blocks({ width, height }: Chart, side: number): Int32Array {
  const across = Math.ceil(width / side);
  return Int32Array.from({ length: width * height }, (_, cell) => {
    const [x, y] = [cell % width, Math.floor(cell / width)];
    return Math.floor(y / side) * across + Math.floor(x / side);
  });
}

/** The usual rounds for sections of a size, see `roundsFor`. */
function sections(name: string, chart: Chart, side: number): void {
  for (const widest of TIPS) {
    const from = performance.now();
    const regions = regionsOf(chart, blocks(chart, side));
    const found = search(regions, widest);
    found.run(roundsFor(side * side));
    const count = Math.ceil(chart.width / side) * Math.ceil(chart.height / side);
    console.log(
      `  ${name.padEnd(10)} K ${String(widest).padStart(2)}  sections of ${side} × ${side}: ${over(found.cost, found.bound)} over the bound, ${((performance.now() - from) / count).toFixed(1)} ms a section`,
    );
  }
}

console.log(`Whole canvases, ${SECONDS} s on one core`);
const kinds = CHART_KINDS.filter((kind) => KINDS.includes(kind));
for (const kind of kinds) {
  const chart = seededChart(kind);
  console.log(`${kind}: ${chart.width} × ${chart.height}, ${regionsOf(chart, null).lines.length} regions`);
  for (const widest of TIPS) line(kind, chart, widest);
}
if (KINDS.includes('demo')) {
  for (const [name, kit] of [
    ['Glasshouse', glasshouseKit],
    ['Lantern', lanternKit],
    ['Kingfisher', kingfisherKit],
  ] as const) {
    const { chart } = await kit();
    for (const widest of TIPS) line(name, chart, widest);
  }
}
console.log('Sections');
for (const kind of kinds) {
  if (kind === 'confetti') continue;
  sections(kind, seededChart(kind), 60);
  sections(kind, seededChart(kind), 30);
}
