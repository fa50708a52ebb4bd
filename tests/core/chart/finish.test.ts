import { describe, expect, it } from 'vitest';
import { finishCells, movedCounts, specialLine } from '../../../src/core/chart/finish';
import { chartOfRows, line } from '../samples';

const chart = chartOfRows('1121', '2111');

describe('another finish', () => {
  it('goes to the drills of the colour that a rule or the hand picks', () => {
    expect(finishCells(chart, 1, { kind: 'all' }, [])).toEqual([0, 1, 3, 5, 6, 7]);
    expect(finishCells(chart, 1, { kind: 'every', n: 2 }, [])).toHaveLength(3);
    expect(finishCells(chart, 1, null, [2, 3, 4, 5])).toEqual([3, 5]);
  });

  it('moves the counts along, and never below nothing', () => {
    const legend = [line(1, { neededDrills: 10 }), line(2, { neededDrills: 4 }), line(3)];
    expect(movedCounts(legend, 1, 2, 6).map((each) => each.neededDrills)).toEqual([4, 10, 100]);
    expect(movedCounts(legend, 2, 1, 6).map((each) => each.neededDrills)).toEqual([16, 0, 100]);
  });

  it('takes the line that is there, else a new one at the end of the sheet', () => {
    const legend = [line(1), line(2, { code: 'G401', finish: 'glow' })];
    expect(specialLine(legend, legend[0]!, 'G401', 'glow')).toEqual({ special: legend[1], all: legend });
    const { special, all } = specialLine(legend, legend[0]!, 'M401', 'metallic');
    expect(special).toMatchObject({ line: 3, keyNumber: '3', code: 'M401', finish: 'metallic', packets: 0 });
    expect(special.hex).toBe(legend[0]!.hex);
    expect(all).toHaveLength(3);
    expect(() => specialLine(legend, legend[1]!, 'G401', 'glow')).toThrow('already is glow');
  });
});
