import { describe, expect, it } from 'vitest';
import { type Bitmap, emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { lastWalk, type WalkTask } from '../../../src/core/finish/lastWalk';
import { packed } from '../progress/packed';
import { chartOfRows } from '../samples';

//          0123   4567   89..
const chart = chartOfRows('1122', '1.22', '1133');

function laidBut(...bare: number[]): Bitmap {
  const laid = emptyBitmap(12);
  for (let cell = 0; cell < 12; cell++) if (!bare.includes(cell)) setLaid(laid, cell, true);
  return laid;
}

function walkOf(more: Partial<WalkTask>) {
  return lastWalk({
    chart,
    cells: 12,
    laid: laidBut(5),
    popped: [],
    lines: 3,
    marks: null,
    repairs: [],
    ...more,
  });
}

describe('the last walk', () => {
  it('finds nothing where everything is laid that wants a drill', () => {
    const { walk, laidPerLine } = walkOf({});
    expect(walk).toEqual({
      bare: { drills: 0, runs: [] },
      popped: { drills: 0, runs: [] },
      doubtful: { drills: 0, runs: [] },
    });
    // Line 0 is what wants none.
    expect([...laidPerLine].slice(1)).toEqual([5, 4, 2]);
  });

  it('gathers what is bare in runs, across the end of a row, and parted by a square that wants no drill', () => {
    const { walk, laidPerLine } = walkOf({ laid: laidBut(2, 3, 4, 5, 6, 10) });
    expect(walk.bare).toEqual({ drills: 5, runs: [2, 3, 6, 1, 10, 1] });
    expect([...laidPerLine].slice(1)).toEqual([4, 1, 1]);
  });

  it('counts a square whose drill came off as popped, and not as bare too', () => {
    const { walk } = walkOf({ laid: laidBut(3, 5, 6, 7), popped: [7, 6] });
    expect(walk.bare).toEqual({ drills: 1, runs: [3, 1] });
    expect(walk.popped).toEqual({ drills: 2, runs: [6, 2] });
  });

  it('doubts a drill on a square of no known colour', () => {
    const { walk } = walkOf({ laid: laidBut() });
    expect(walk.doubtful).toEqual({ drills: 1, runs: [5, 1] });
    expect(walk.bare.drills).toBe(0);
  });

  it('doubts what was laid before its colour was corrected, unless it was laid again since', () => {
    const repairs = [{ happenedAt: '2026-05-02T10:00:00.000Z', runs: [0, 4] }];
    const before = { at: '2026-05-02T09:59:00.000Z', kind: 'lay' as const, runs: [0, 3, 8, 4] };
    const again = { at: '2026-05-02T10:01:00.000Z', kind: 'lay' as const, runs: [1, 1] };
    const lifted = { at: '2026-05-02T10:02:00.000Z', kind: 'lift' as const, runs: [2, 1] };
    const marks = packed([before, again, lifted]);
    // Square 0 lies as it lay; 1 was laid again; 2 was lifted; 3 was never laid, and the rest was not corrected.
    expect(walkOf({ laid: laidBut(2, 3, 5), marks, repairs }).walk.doubtful).toEqual({
      drills: 1,
      runs: [0, 1],
    });
    expect(walkOf({ laid: laidBut(2, 3, 5), marks, repairs: [] }).walk.doubtful.drills).toBe(0);
    // A correction later than all of it makes all that lies doubtful, once each.
    const later = [...repairs, { happenedAt: '2026-05-03T10:00:00.000Z', runs: [0, 2] }];
    expect(walkOf({ laid: laidBut(2, 3, 5), marks, repairs: later }).walk.doubtful).toEqual({
      drills: 2,
      runs: [0, 2],
    });
  });

  it('wants a drill on every square of a canvas without a chart, and knows no colours', () => {
    const { walk, laidPerLine } = walkOf({ chart: null, laid: laidBut(5, 6) });
    expect(walk.bare).toEqual({ drills: 2, runs: [5, 2] });
    expect(walk.doubtful.drills).toBe(0);
    expect([...laidPerLine]).toEqual([0, 0, 0, 0]);
  });
});
