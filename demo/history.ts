import { panelsSideBySide } from '../src/core/canvas/canvas';
import { emptyBitmap } from '../src/core/cells/bitmap';
import { type CellRuns, runsFromCells } from '../src/core/cells/cellRuns';
import { cellsInPart, countInPart } from '../src/core/cells/rect';
import { cutIntoBlocks, USUAL_BLOCK } from '../src/core/sections/blockGrid';
import type { Kit } from './kits';
import { between, pick, type Random } from './random';

/** A sitting of the demo: when it began and ended, and what was marked in it. */
export interface DemoSitting {
  startedAt: Date;
  endedAt: Date;
  note: string;
  marks: { at: Date; runs: CellRuns }[];
}

const NOTES = [
  'Slow and steady, lamp on.',
  'Wax ran out near the end.',
  'Mostly confetti, stopped early.',
  'Two blocks in one go with the wide tip.',
  'Tray knocked over, sorted again.',
  '',
  '',
  'Neck stiff, raised the board.',
];

/** Drills a minute, from a slow evening to a quick one (common practice, no source). */
const PACE = [9, 14] as const;

/**
 * A past for a kit: sections from the top left, most frequent colour first, until the wished share is laid,
 * spread over so many days before `now`.
 * @param share 0…1 of all drills
 */
export function inventHistory(
  kit: Kit,
  share: number,
  sittings: number,
  days: number,
  now: Date,
  random: Random,
): DemoSitting[] {
  const work = colourSteps(kit, Math.round(share * kit.chart.cells.length));
  const drills = work.reduce((sum, step) => sum + step.cells.length, 0);
  const weights = Array.from({ length: sittings }, () => between(random, 0.5, 1.5));
  const allWeights = weights.reduce((sum, weight) => sum + weight, 0);
  const history: DemoSitting[] = [];
  let next = 0;
  let due = 0;
  let done = 0;
  for (let i = 0; i < sittings; i++) {
    due += (drills * weights[i]!) / allWeights;
    const before = done;
    const pace = between(random, PACE[0], PACE[1]);
    const marks: CellRuns[] = [];
    while (next < work.length && (done < due || i === sittings - 1)) {
      marks.push(runsFromCells(work[next]!.cells));
      done += work[next]!.cells.length;
      next++;
    }
    const minutes = Math.max(5, (done - before) / pace);
    const startedAt = new Date(now.getTime() - sittingAge(i, sittings, days, minutes));
    const endedAt = new Date(startedAt.getTime() + minutes * 60_000);
    history.push({
      startedAt,
      endedAt,
      note: pick(random, NOTES),
      marks: marks.map((runs, m) => ({
        at: new Date(startedAt.getTime() + ((m + 1) / (marks.length + 1)) * minutes * 60_000),
        runs,
      })),
    });
  }
  return history;
}

/** Milliseconds before now at which a sitting began: evenly over the days, the last one just ended. */
function sittingAge(i: number, sittings: number, days: number, minutes: number): number {
  const daysAgo = Math.round((days * (sittings - 1 - i)) / (sittings - 1));
  return daysAgo * 86_400_000 + (minutes + 5) * 60_000;
}

function colourSteps(kit: Kit, target: number): { cells: number[] }[] {
  const bare = emptyBitmap(kit.chart.cells.length);
  const steps: { cells: number[] }[] = [];
  let laid = 0;
  for (const section of cutIntoBlocks(panelsSideBySide(kit.canvas, kit.canvas.panels), USUAL_BLOCK)) {
    const counts = countInPart(kit.chart, section, kit.legend.length, null);
    const lines = kit.legend.map((line) => line.line).filter((line) => counts[line]! > 0);
    for (const line of lines.sort((a, b) => counts[b]! - counts[a]!)) {
      if (laid >= target) return steps;
      const cells = cellsInPart(kit.chart, bare, section, line, false).slice(0, target - laid);
      steps.push({ cells });
      laid += cells.length;
    }
  }
  return steps;
}
