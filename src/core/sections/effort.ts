import { type Bitmap, isLaid } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import type { CellPart } from '../cells/rect';
import { forEachRun } from '../cells/runs';
import { type Effort, placementKind } from '../pace/effort';
import { countConfetti, isConfetti } from '../placing/confetti';
import { cutRegion, piecesOf } from '../placing/cutting';
import { leftToLay, regionsOf } from '../placing/regions';
import { onePerPlacement } from '../placing/search/barCosts';
import { searchRegions } from '../placing/search/fewest';
import type { Tips } from '../placing/tips';
import { largest } from '../words/numbers';

/**
 * What is left to do in a part of a canvas, by a quick plan of its placements: rows and columns as they come, some
 * hundredths more than the fewest, for it is asked of hundreds of sections at once.
 * @param tips drills per tip, see {@link Tips}
 */
export function effortOf(chart: Chart, part: CellPart, laid: Bitmap, tips: Tips): Effort {
  const bars = onePerPlacement(largest(tips, 1));
  const regions = regionsOf(leftToLay(chart, part, laid), null);
  const { labels } = searchRegions(regions, () => bars, 1, { rounds: 0 });
  const effort: Effort = { colours: 0, singles: 0, shortBars: 0, longBars: 0, turns: 0, confetti: 0 };
  const colours = new Map<number, { drills: number; along: boolean; down: boolean }>();
  regions.lines.forEach((line, region) => {
    const ways = colours.get(line) ?? { drills: 0, along: false, down: false };
    colours.set(line, ways);
    cutRegion(regions, region, labels, bars, (_place, drills, down) => {
      effort[placementKind(drills)]++;
      if (drills > 1) ways[down ? 'down' : 'along'] = true;
    });
    ways.drills += regions.starts[region + 1]! - regions.starts[region]!;
  });
  effort.colours = colours.size;
  effort.turns = turnsOver([...colours.values()].sort((a, b) => b.drills - a.drills));
  effort.confetti = countConfetti(chart, [part], laid);
  return effort;
}

/** Turns of the tray when each colour begins with the direction that the last one ended with. */
function turnsOver(colours: readonly { along: boolean; down: boolean }[]): number {
  let turns = 0;
  let last: 'along' | 'down' | null = null;
  for (const { along, down } of colours) {
    if (!along && !down) continue;
    if (along && down) {
      turns++;
      last = last === 'down' ? 'along' : 'down';
    } else {
      const only = along ? 'along' : 'down';
      if (last !== null && last !== only) turns++;
      last = only;
    }
  }
  return turns;
}

/**
 * Seconds that each cell takes, its colour's opening left out: its share of the placement it is laid with, along its row
 * or its column, whichever is quicker, and hunting for confetti. 0 where nothing is left to lay.
 * @param seconds that one of each takes
 */
export function secondsPerCell(
  chart: Chart,
  laid: Bitmap,
  tips: Tips,
  seconds: Readonly<Effort>,
): Float32Array {
  const { width, height, cells } = chart;
  const wanted = (cell: number) => (isLaid(laid, cell) ? 0 : cells[cell]!);
  const each = new Float32Array(cells.length);
  const bars = onePerPlacement(largest(tips, 1));
  const shares = new Map<number, number>();
  const share = (run: number): number => {
    let known = shares.get(run);
    if (known === undefined) {
      const whole = piecesOf(run, bars).reduce((sum, drills) => sum + seconds[placementKind(drills)], 0);
      known = whole / run;
      shares.set(run, known);
    }
    return known;
  };
  for (let y = 0; y < height; y++) {
    const row = y * width;
    forEachRun(
      width,
      (x) => wanted(row + x),
      (x, run, line) => {
        if (line !== 0) each.fill(share(run), row + x, row + x + run);
      },
    );
  }
  for (let x = 0; x < width; x++) {
    forEachRun(
      height,
      (y) => wanted(y * width + x),
      (y, run, line) => {
        if (line === 0) return;
        const mine = share(run);
        for (let at = y; at < y + run; at++) {
          const cell = at * width + x;
          if (mine < each[cell]!) each[cell] = mine;
        }
      },
    );
  }
  for (let cell = 0; cell < cells.length; cell++) {
    if (each[cell]! > 0 && isConfetti(chart, cell, cell % width, Math.floor(cell / width))) {
      each[cell]! += seconds.confetti;
    }
  }
  return each;
}
