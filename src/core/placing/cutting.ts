import type { Regions } from './regions';
import { type BarCosts, runCosts } from './search/barCosts';
import { ALONG, DOWN } from './search/chains';

/** A bar as places of `Regions`: its first, its drills, and whether it goes down. */
export type VisitBar = (place: number, drills: number, down: boolean) => void;

/** What a seam counts in placements: it is taken only where nothing else is left, as with single drills. */
const SEAM = 20;

/**
 * Cuts the runs of a region into bars as cheaply as can be, the widest first.
 * @param labels along or down, by place
 */
export function cutRegion(
  regions: Regions,
  region: number,
  labels: Uint8Array,
  bars: BarCosts,
  visit: VisitBar,
): void {
  const pieces = new Map<number, number[]>();
  forEachLabelRun(regions, region, labels, (places, down) => {
    let sizes = pieces.get(places.length);
    if (!sizes) {
      sizes = piecesOf(places.length, bars);
      pieces.set(places.length, sizes);
    }
    let at = 0;
    for (const drills of sizes) {
      visit(places[at]!, drills, down);
      at += drills;
    }
  });
}

/** The pieces of a run, widest first, that together cost least. */
export function piecesOf(length: number, bars: BarCosts): number[] {
  const costs = runCosts(bars, length);
  const sizes: number[] = [];
  for (let left = length; left > 0; ) {
    let drills = Math.min(left, bars.length - 1);
    while (costs[left]! < costs[left - drills]! + bars[drills]! - 1e-9) drills--;
    sizes.push(drills);
    left -= drills;
  }
  return sizes;
}

/**
 * Cuts the runs of a region so that no break lies beside a break of the run before: the seam between two bars then never
 * runs on. Costs a placement here and there, where a run that is full to the last drill has no other break.
 */
export function cutStaggered(
  regions: Regions,
  region: number,
  labels: Uint8Array,
  bars: BarCosts,
  visit: VisitBar,
): void {
  const { up, left } = regions;
  const widest = bars.length - 1;
  const from = regions.starts[region]!;
  // Whether a break lies before a place, within its run.
  const broken = new Uint8Array(regions.starts[region + 1]! - from);
  const seam = SEAM * bars[1]!;
  forEachLabelRun(regions, region, labels, (places, down) => {
    const beside = (place: number) => {
      const before = down ? (left[place] === 1 ? place - 1 : -1) : up[place]!;
      return before !== -1 && (labels[before] === DOWN) === down && broken[before - from] === 1;
    };
    const { length } = places;
    const cost = new Float64Array(length + 1).fill(Infinity);
    const piece = new Int32Array(length + 1);
    cost[0] = 0;
    for (let end = 1; end <= length; end++) {
      const shown = end < length && beside(places[end]!) ? seam : 0;
      // The widest first, so that of equal ways the one with the full bars in front is taken.
      for (let drills = Math.min(end, widest); drills > 0; drills--) {
        const here = cost[end - drills]! + bars[drills]! + shown;
        if (here < cost[end]! - 1e-9) {
          cost[end] = here;
          piece[end] = drills;
        }
      }
    }
    const sizes: number[] = [];
    for (let end = length; end > 0; end -= piece[end]!) sizes.push(piece[end]!);
    let at = 0;
    for (const drills of sizes.reverse()) {
      if (at > 0) broken[places[at]! - from] = 1;
      visit(places[at]!, drills, down);
      at += drills;
    }
  });
}

/** Visits the maximal runs of a region, all along rows from the top, then all down columns from the left. */
function forEachLabelRun(
  { byColumn, down, left, starts }: Regions,
  region: number,
  labels: Uint8Array,
  visit: (places: number[], down: boolean) => void,
): void {
  const from = starts[region]!;
  const to = starts[region + 1]!;
  let run: number[] = [];
  const done = (isDown: boolean) => {
    if (run.length > 0) visit(run, isDown);
    run = [];
  };
  for (let place = from; place < to; place++) {
    if (left[place] !== 1) done(false);
    if (labels[place] === ALONG) run.push(place);
    else done(false);
  }
  done(false);
  for (let at = from; at < to; at++) {
    const place = byColumn[at]!;
    if (labels[place] === DOWN) run.push(place);
    else done(true);
    if (down[place] === -1) done(true);
  }
  done(true);
}

/** Breaks within runs that lie beside a break of the run before: seams that show. @param bars as visited, of one region or several */
export function countSeams(
  placements: readonly { x: number; y: number; length: number; orientation: 'h' | 'v'; line: number }[],
): number {
  const starts = new Set<string>();
  const ends = new Set<string>();
  const key = (orientation: string, line: number, x: number, y: number) => `${orientation}${line} ${x} ${y}`;
  for (const { x, y, length, orientation, line } of placements) {
    starts.add(key(orientation, line, x, y));
    ends.add(orientation === 'h' ? key('h', line, x + length, y) : key('v', line, x, y + length));
  }
  const breaks = [...starts].filter((each) => ends.has(each));
  const all = new Set(breaks);
  return breaks.filter((each) => {
    const [head, x, y] = each.split(' ') as [string, string, string];
    return all.has(head.startsWith('h') ? `${head} ${x} ${Number(y) - 1}` : `${head} ${Number(x) - 1} ${y}`);
  }).length;
}
