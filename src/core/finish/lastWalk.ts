import { type Bitmap, isLaid } from '../cells/bitmap';
import { cellsOfRuns, runsFromCells } from '../cells/cellRuns';
import { type Chart, countPerLine } from '../cells/chart';
import type { PackedMarks } from '../progress/packedMarks';
import { leftPerLine } from '../progress/progress';

/** Squares that want a look on the last walk; cell indices as runs, start and length. */
export interface LastWalk {
  bare: { drills: number; runs: number[] };
  popped: { drills: number; runs: number[] };
  /** Laid before their colour was corrected, or without a known colour. */
  doubtful: { drills: number; runs: number[] };
}

/** What the last walk goes over; it goes to another thread. */
export interface WalkTask {
  /** Null where the canvas has none, so that every cell wants a drill. */
  chart: Chart | null;
  cells: number;
  laid: Bitmap;
  /** Cells whose drill came off again. */
  popped: readonly number[];
  /** Highest line of the legend. */
  lines: number;
  /** All that was ever laid and lifted; null where no repair asks for it. */
  marks: PackedMarks | null;
  repairs: readonly { happenedAt: string; runs: readonly number[] }[];
}

export interface WalkDone {
  walk: LastWalk;
  /** Drills laid of each line, as the chart tells it; nothing without a chart. */
  laidPerLine: Uint32Array;
}

/** What is bare, has popped or is doubtful, and what was laid of each colour. */
export function lastWalk(task: WalkTask): WalkDone {
  const { chart, cells, laid, popped, lines } = task;
  const isPopped = new Set(popped);
  const bare: LastWalk['bare'] = { drills: 0, runs: [] };
  const unknown: number[] = [];
  let before = false;
  // What is bare on a large canvas is too much to gather square by square.
  for (let cell = 0; cell < cells; cell++) {
    const line = chart ? chart.cells[cell]! : 1;
    const lies = isLaid(laid, cell);
    if (line === 0 && lies) unknown.push(cell);
    const isBare = line !== 0 && !lies && !isPopped.has(cell);
    if (isBare) {
      bare.drills++;
      if (before) bare.runs[bare.runs.length - 1]!++;
      else bare.runs.push(cell, 1);
    }
    before = isBare;
  }
  const left = chart && leftPerLine(chart, laid, lines);
  return {
    walk: {
      bare,
      popped: runsOf([...popped]),
      doubtful: runsOf([...new Set([...unknown, ...movedUnder(task)])]),
    },
    laidPerLine:
      chart && left
        ? countPerLine(chart, lines).map((all, line) => all - left[line]!)
        : new Uint32Array(lines + 1),
  };
}

function runsOf(cells: readonly number[]): LastWalk['bare'] {
  return { drills: cells.length, runs: runsFromCells(cells) };
}

/**
 * Squares that lie in another colour than the chart says now, as far as is known: laid before their colour was corrected
 * and not laid anew since.
 */
function movedUnder({ marks, laid, cells, repairs }: WalkTask): number[] {
  if (!marks) return [];
  const laidAt = new Float64Array(cells);
  let from = 0;
  for (let i = 0; i < marks.ends.length; i++) {
    const to = marks.ends[i]!;
    for (let run = from; run < to; run += 2) {
      const start = marks.runs[run]!;
      if (marks.lays[i] === 1)
        laidAt.fill(marks.at[i]!, start, Math.min(cells, start + marks.runs[run + 1]!));
    }
    from = to;
  }
  const found = new Set<number>();
  for (const { happenedAt, runs } of repairs) {
    const at = Date.parse(happenedAt);
    for (const cell of cellsOfRuns(runs)) {
      if (cell < cells && isLaid(laid, cell) && laidAt[cell]! < at) found.add(cell);
    }
  }
  return [...found].sort((a, b) => a - b);
}
