import type { Chart } from '../cells/chart';
import { type CellPart, forEachCell } from '../cells/rect';
import { forEachRun } from '../cells/runs';
import { type Effort, placementKind } from '../pace/effort';
import { isConfetti } from '../placing/confetti';

/**
 * What each square costs, in seconds: its share of the bar that lays it (along its row or down its column, whichever is
 * cheaper), the hunt for confetti, and its share of opening its colour in its section. Sums over squares are what a day
 * did, and what is left to do, in one and the same measure: confetti that is left counts as confetti.
 * @param sections that cover the canvas @param widest drills of the widest bar @param seconds that one of each effort takes
 * @returns one value a cell; 0 where no drill goes
 */
export function cellWork(
  chart: Chart,
  sections: readonly CellPart[],
  widest: number,
  seconds: Readonly<Effort>,
): Float32Array {
  const { width, height, cells } = chart;
  const work = new Float32Array(cells.length).fill(Number.POSITIVE_INFINITY);
  /** Seconds a square in a run of so many. */
  const perSquare = new Map<number, number>();
  const costOf = (run: number) => {
    let cost = perSquare.get(run);
    if (cost === undefined) {
      const [full, rest] = [Math.floor(run / widest), run % widest];
      const bars = full * seconds[placementKind(widest)] + (rest > 0 ? seconds[placementKind(rest)] : 0);
      cost = bars / run;
      perSquare.set(run, cost);
    }
    return cost;
  };
  const take = (first: number, step: number, run: number) => {
    const cost = costOf(run);
    for (let i = 0, cell = first; i < run; i++, cell += step) work[cell] = Math.min(work[cell]!, cost);
  };
  for (let y = 0; y < height; y++) {
    forEachRun(
      width,
      (x) => cells[y * width + x]!,
      (x, run) => take(y * width + x, 1, run),
    );
  }
  for (let x = 0; x < width; x++) {
    forEachRun(
      height,
      (y) => cells[y * width + x]!,
      (y, run) => take(y * width + x, width, run),
    );
  }
  for (let y = 0, cell = 0; y < height; y++) {
    for (let x = 0; x < width; x++, cell++) {
      if (cells[cell] === 0) work[cell] = 0;
      else if (isConfetti(chart, cell, x, y)) work[cell]! += seconds.confetti;
    }
  }
  const counts = new Map<number, number>();
  for (const section of sections) {
    counts.clear();
    forEachCell(chart, section, (_, line) => {
      if (line !== 0) counts.set(line, (counts.get(line) ?? 0) + 1);
    });
    forEachCell(chart, section, (cell, line) => {
      if (line !== 0) work[cell]! += seconds.colours / counts.get(line)!;
    });
  }
  return work;
}
