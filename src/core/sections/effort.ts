import type { Bitmap } from '../cells/bitmap';
import { isLaid } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import { type CellPart, forEachCell } from '../cells/rect';
import { forEachRun } from '../cells/runs';
import { type Effort, placementKind } from '../pace/effort';
import { planSection, splitRun } from '../placing/barPlan';
import type { Tips } from '../placing/tips';

/**
 * What is left to do in a part of a canvas, by the placing plan.
 * @param tips drills per tip, see {@link Tips}
 */
export function effortOf(chart: Chart, part: CellPart, laid: Bitmap, tips: Tips): Effort {
  const plans = planSection(chart, part, laid, tips);
  const effort: Effort = {
    colours: plans.length,
    singles: 0,
    shortBars: 0,
    longBars: 0,
    turns: 0,
    confetti: 0,
  };
  plans.forEach((plan, i) => {
    if (i > 0 && plan.better !== plans[i - 1]!.better) effort.turns++;
    for (const { drills } of plan[plan.better].placements) effort[placementKind(drills)]++;
  });
  forEachCell(chart, part, (cell, line, x, y) => {
    if (line !== 0 && !isLaid(laid, cell) && isConfetti(chart, cell, x, y)) effort.confetti++;
  });
  return effort;
}

/** Whether no neighbour of a cell (left, right, above, below) has its colour. */
function isConfetti({ cells, width, height }: Chart, cell: number, x: number, y: number): boolean {
  const line = cells[cell];
  return (
    !(x > 0 && cells[cell - 1] === line) &&
    !(x < width - 1 && cells[cell + 1] === line) &&
    !(y > 0 && cells[cell - width] === line) &&
    !(y < height - 1 && cells[cell + width] === line)
  );
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
  const shares = new Map<number, number>();
  const share = (run: number): number => {
    let known = shares.get(run);
    if (known === undefined) {
      const whole = splitRun(run, tips).reduce((sum, { drills }) => sum + seconds[placementKind(drills)], 0);
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
