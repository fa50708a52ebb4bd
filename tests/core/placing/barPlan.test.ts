import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { makeChart } from '../../../src/core/cells/chart';
import { countPlacements, planSection, splitRun } from '../../../src/core/placing/barPlan';
import { orderTips } from '../../../src/core/placing/tips';
import { chartOfRows } from '../samples';

const tipSet = fc.uniqueArray(fc.integer({ min: 1, max: 15 }), { maxLength: 5 }).map(orderTips);

/** Fewest placements for a run by exhaustive dynamic programming, told nothing of our rule. */
function fewestByTrial(run: number, tips: readonly number[]): number {
  const fewest = [0];
  for (let length = 1; length <= run; length++) {
    let best = Infinity;
    // A tip may pick up any number up to its size.
    for (const tip of tips)
      for (let take = 1; take <= Math.min(tip, length); take++)
        best = Math.min(best, fewest[length - take]! + 1);
    fewest.push(best);
  }
  return fewest[run]!;
}

describe('splitting a run over the tips', () => {
  it('uses the widest tip while it is full, then the narrowest that holds the rest', () => {
    expect(splitRun(14, [1, 3, 6, 9])).toEqual([
      { drills: 9, tip: 9 },
      { drills: 5, tip: 6 },
    ]);
    expect(splitRun(1, [1, 3, 6])).toEqual([{ drills: 1, tip: 1 }]);
    expect(splitRun(4, [1])).toHaveLength(4);
  });

  it('lays the whole run, never over-fills a tip, and takes no placement too many', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), tipSet, (run, tips) => {
        const parts = splitRun(run, tips);
        expect(parts.reduce((sum, part) => sum + part.drills, 0)).toBe(run);
        for (const part of parts) {
          expect(tips).toContain(part.tip);
          expect(part.drills).toBeLessThanOrEqual(part.tip);
        }
        expect(parts).toHaveLength(fewestByTrial(run, tips));
      }),
    );
  });
});

describe('plan of a section', () => {
  const whole = (chart: { width: number; height: number }) => ({
    x: 0,
    y: 0,
    width: chart.width,
    height: chart.height,
  });

  it('goes along the direction with the fewer placements', () => {
    const chart = chartOfRows('1222', '1333', '1222');
    const plans = planSection(chart, whole(chart), emptyBitmap(12), [1, 3]);
    expect(plans.map(({ line, drills, better }) => [line, drills, better])).toEqual([
      [2, 6, 'rows'],
      [1, 3, 'columns'],
      [3, 3, 'rows'],
    ]);
    const [two, one] = plans;
    expect(two!.rows.placements).toEqual([
      { x: 1, y: 0, drills: 3, tip: 3 },
      { x: 1, y: 2, drills: 3, tip: 3 },
    ]);
    expect(two!.columns.placements).toHaveLength(6);
    expect(one!.columns.placements).toEqual([{ x: 0, y: 0, drills: 3, tip: 3 }]);
    expect(countPlacements(plans)).toEqual({ planned: 4, oneByOne: 12 });
  });

  it('lets a laid cell break a run', () => {
    const chart = chartOfRows('11111');
    const laid = emptyBitmap(5);
    setLaid(laid, 2, true);
    const [plan] = planSection(chart, whole(chart), laid, [1, 5]);
    expect(plan!.drills).toBe(4);
    expect(plan!.rows.placements.map((placement) => [placement.x, placement.drills])).toEqual([
      [0, 2],
      [3, 2],
    ]);
    expect(plan!.rows.longestRun).toBe(2);
  });

  it('stays inside the section', () => {
    const chart = chartOfRows('1111', '1111');
    const [plan] = planSection(chart, { x: 1, y: 0, width: 2, height: 1 }, emptyBitmap(8), [1, 4]);
    expect(plan!.rows.placements).toEqual([{ x: 1, y: 0, drills: 2, tip: 4 }]);
  });

  it('has no plan for what is all laid', () => {
    const chart = chartOfRows('1');
    const laid = emptyBitmap(1);
    setLaid(laid, 0, true);
    expect(planSection(chart, whole(chart), laid, [1])).toEqual([]);
  });

  it('covers every cell that is to lay exactly once, in either direction', () => {
    const cells = fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 35, maxLength: 35 });
    fc.assert(
      fc.property(cells, fc.uniqueArray(fc.integer({ min: 0, max: 34 })), tipSet, (lines, done, tips) => {
        const chart = makeChart(7, 5, Uint16Array.from(lines));
        const laid = emptyBitmap(35);
        for (const cell of done) setLaid(laid, cell, true);
        const plans = planSection(chart, whole(chart), laid, tips);
        for (const direction of ['rows', 'columns'] as const) {
          const times = new Uint8Array(35);
          for (const plan of plans) {
            for (const { x, y, drills } of plan[direction].placements) {
              for (let i = 0; i < drills; i++) {
                const cell = direction === 'rows' ? y * 7 + x + i : (y + i) * 7 + x;
                expect(chart.cells[cell]).toBe(plan.line);
                times[cell]!++;
              }
            }
          }
          const wanted = lines.map((line, cell) => (line !== 0 && !done.includes(cell) ? 1 : 0));
          expect([...times]).toEqual(wanted);
        }
        for (const plan of plans) {
          expect(plan[plan.better].placements.length).toBe(
            Math.min(plan.rows.placements.length, plan.columns.placements.length),
          );
        }
      }),
    );
  });
});

describe('the better direction', () => {
  it('is rows where both take as many placements', () => {
    const plan = (...rows: string[]) => {
      const chart = chartOfRows(...rows);
      const section = { number: 1, x: 0, y: 0, width: chart.width, height: chart.height };
      return planSection(chart, section, emptyBitmap(chart.cells.length), [1, 3])[0]!.better;
    };
    expect(plan('11', '11')).toBe('rows');
    expect(plan('1.', '1.', '1.')).toBe('columns');
    expect(plan('111', '...', '...')).toBe('rows');
  });
});
