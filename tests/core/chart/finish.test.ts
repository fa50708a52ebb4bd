import { describe, expect, it } from 'vitest';
import { finishCells, movedCounts, specialLine, takenOff } from '../../../src/core/chart/finish';
import { chartOfRows, line } from '../samples';

const chart = chartOfRows('1121', '2111');

describe('another finish', () => {
  it('goes to the drills of the colour that a rule or the hand picks', () => {
    expect(finishCells(chart, 1, { kind: 'all' }, [])).toEqual([0, 1, 3, 5, 6, 7]);
    expect(finishCells(chart, 1, null, [2, 3, 4, 5])).toEqual([3, 5]);
  });

  it('moves the counts along, and never below nothing', () => {
    const legend = [line(1, { neededDrills: 10 }), line(2, { neededDrills: 4 }), line(3)];
    const move = (from: number, to: number, given: number) =>
      movedCounts(legend, { from, taken: takenOff(legend, from, given), to, given }).map(
        (each) => each.neededDrills,
      );
    expect(move(1, 2, 6)).toEqual([4, 10, 100]);
    // The sheet counts 4 and the chart has 6: only 4 can come off, so that they can be given back.
    expect(move(2, 1, 6)).toEqual([16, 0, 100]);
    expect(takenOff(legend, 2, 6)).toBe(4);
  });

  it('takes the line that is there, else a new one at the end of the sheet', () => {
    const legend = [line(1), line(2, { code: 'G401', finish: 'glow' })];
    expect(specialLine(legend, legend[0]!, 'G401', 'glow', 9)).toEqual({ special: legend[1], all: legend });
    const { special, all } = specialLine(legend, legend[0]!, 'M401', 'metallic', 9);
    expect(special).toMatchObject({
      line: 9,
      keyNumber: '1+',
      origin: 'own',
      code: 'M401',
      finish: 'metallic',
      packets: 0,
    });
    expect(special.hex).toBe(legend[0]!.hex);
    expect(all).toHaveLength(3);
    expect(() => specialLine(legend, legend[1]!, 'G401', 'glow', 9)).toThrow('already is glow');
    const full = Array.from({ length: 250 }, (_, i) => line(i + 1));
    expect(() => specialLine(full, full[0]!, 'G1', 'glow', 251)).toThrow('at most 250 colours');
  });
});
