import { applyMark } from '../../core/bench/marking';
import { emptyBitmap, setLaid } from '../../core/cells/bitmap';
import type { Chart } from '../../core/cells/chart';
import type { TimedEffort } from '../../core/pace/timeModel';
import type { Tips } from '../../core/placing/tips';
import { effortOf } from '../../core/sections/effort';
import type { SittingMarks } from '../../data/timeModel';

/** What is no sitting: a press too much, or a clock that ran all night. */
const SENSIBLE = { minutes: [3, 480], drills: 10, drillsAMinute: 1 } as const;

/** What the model learns from; it goes to another thread. */
export interface LearnTask {
  sittings: SittingMarks[];
  charts: { canvasId: string; chart: Chart; tips: Tips }[];
}

/** What was done in each sitting, by the placing plan of what it laid. */
export function sittingEfforts({ sittings, charts }: LearnTask): TimedEffort[] {
  const chartOfCanvas = new Map(charts.map(({ canvasId, chart, tips }) => [canvasId, { chart, tips }]));
  return sittings.flatMap(({ canvasId, minutes, marks }): TimedEffort[] => {
    const known = chartOfCanvas.get(canvasId);
    if (!known || minutes < SENSIBLE.minutes[0] || minutes > SENSIBLE.minutes[1]) return [];
    const { chart, tips } = known;
    const laid = emptyBitmap(chart.cells.length);
    for (const { kind, runs } of marks) {
      // Squares of a canvas that was larger then.
      if (runs.length > 0 && runs.at(-2)! + runs.at(-1)! <= chart.cells.length) applyMark(laid, kind, runs);
    }
    // To the plan all but what this sitting laid is laid already.
    let drills = 0;
    let [left, top, right, bottom] = [chart.width, chart.height, -1, -1];
    for (let byte = 0; byte < laid.length; byte++) laid[byte] = ~laid[byte]!;
    for (let cell = 0; cell < chart.cells.length; cell++) {
      if ((laid[cell >> 3]! & (1 << (cell & 7))) !== 0) continue;
      if (chart.cells[cell] === 0) {
        setLaid(laid, cell, true);
        continue;
      }
      drills++;
      const x = cell % chart.width;
      const y = (cell - x) / chart.width;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = y;
    }
    if (drills < SENSIBLE.drills || drills < minutes * SENSIBLE.drillsAMinute) return [];
    const part = { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
    return [{ effort: effortOf(chart, part, laid, tips), minutes }];
  });
}
