import { type Bitmap, isLaid } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import { type CellPart, isInside } from '../cells/rect';
import { forEachRun } from '../cells/runs';
import { largest } from '../words/numbers';
import type { Tips } from './tips';

export type Direction = 'rows' | 'columns';

/** One setting down of the tip: `drills` cells from (x, y) rightwards or downwards, with the named tip. */
export interface Placement {
  x: number;
  y: number;
  drills: number;
  tip: number;
}

/** How one colour of a section is laid along one direction. */
interface DirectionPlan {
  direction: Direction;
  placements: Placement[];
  longestRun: number;
}

/** Both directions for one colour and the better of the two. */
export interface ColourPlan {
  line: number;
  /** Drills still to lay; also the placements it takes one by one. */
  drills: number;
  rows: DirectionPlan;
  columns: DirectionPlan;
  /** Fewer placements; rows when both are equal. */
  better: Direction;
}

/**
 * Splits a run of neighbouring like cells over the tips: the widest tip as often as it is full, then one tip for
 * the rest. A bar tip may pick up fewer than its size, so the rest takes the narrowest tip that holds it.
 * The number of placements, ⌈run ÷ widest⌉, is the least possible for a run.
 * @example splitRun(14, [1, 3, 6, 9]) // [{ drills: 9, tip: 9 }, { drills: 5, tip: 6 }]
 */
export function splitRun(run: number, tips: Tips): { drills: number; tip: number }[] {
  const widest = largest(tips, 1);
  const parts = Array.from({ length: Math.floor(run / widest) }, () => ({ drills: widest, tip: widest }));
  const rest = run % widest;
  if (rest > 0) {
    parts.push({ drills: rest, tip: tips.find((tip) => tip >= rest) ?? widest });
  }
  return parts;
}

/**
 * Plans every colour that is still to lay in a section, most drills first.
 * @param laid cells laid already break a run
 * @param tips drills per tip, see {@link Tips}
 */
export function planSection(chart: Chart, section: CellPart, laid: Bitmap, tips: Tips): ColourPlan[] {
  const rows = planDirection(chart, section, laid, tips, 'rows');
  const columns = planDirection(chart, section, laid, tips, 'columns');
  const plans: ColourPlan[] = [];
  for (const [line, along] of rows) {
    const down = columns.get(line)!;
    plans.push({
      line,
      drills: along.placements.reduce((sum, placement) => sum + placement.drills, 0),
      rows: along,
      columns: down,
      better: down.placements.length < along.placements.length ? 'columns' : 'rows',
    });
  }
  return plans.sort((a, b) => b.drills - a.drills || a.line - b.line);
}

function planDirection(
  chart: Chart,
  section: CellPart,
  laid: Bitmap,
  tips: Tips,
  direction: Direction,
): Map<number, DirectionPlan> {
  const plans = new Map<number, DirectionPlan>();
  const alongRows = direction === 'rows';
  const [steps, length] = alongRows ? [section.height, section.width] : [section.width, section.height];
  const stride = alongRows ? 1 : chart.width;
  const splits = new Map<number, { drills: number; tip: number }[]>();
  // Runs end at the border of a section that is no rectangle.
  const inPart = section.rects && section.rects.length > 1 ? section : null;
  for (let step = 0; step < steps; step++) {
    const startX = alongRows ? section.x : section.x + step;
    const startY = alongRows ? section.y + step : section.y;
    const first = startY * chart.width + startX;
    forEachRun(
      length,
      (at) =>
        inPart &&
        !isInside(inPart, { x: alongRows ? startX + at : startX, y: alongRows ? startY : startY + at })
          ? 0
          : wanted(chart, laid, first + at * stride),
      (start, run, line) => {
        if (line === 0) return;
        let plan = plans.get(line);
        if (!plan) {
          plan = { direction, placements: [], longestRun: 0 };
          plans.set(line, plan);
        }
        plan.longestRun = Math.max(plan.longestRun, run);
        let parts = splits.get(run);
        if (!parts) {
          parts = splitRun(run, tips);
          splits.set(run, parts);
        }
        let at = start;
        for (const { drills, tip } of parts) {
          plan.placements.push({
            x: alongRows ? startX + at : startX,
            y: alongRows ? startY : startY + at,
            drills,
            tip,
          });
          at += drills;
        }
      },
    );
  }
  return plans;
}

/** The legend line to lay in a cell; 0 where none is, or where it is laid. */
function wanted(chart: Chart, laid: Bitmap, cell: number): number {
  return isLaid(laid, cell) ? 0 : chart.cells[cell]!;
}

/** Placements of a whole section: each colour along its better direction, against one by one. */
export function countPlacements(plans: readonly ColourPlan[]): { planned: number; oneByOne: number } {
  return {
    planned: plans.reduce((sum, plan) => sum + plan[plan.better].placements.length, 0),
    oneByOne: plans.reduce((sum, plan) => sum + plan.drills, 0),
  };
}
