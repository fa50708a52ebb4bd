import { describe, expect, it } from 'vitest';
import { panelsSideBySide } from '../../../src/core/canvas/canvas';
import { cutIntoBlocks } from '../../../src/core/sections/blockGrid';
import { sectionWithMost } from '../../../src/core/sections/sectionWithMost';
import { chartOfRows } from '../samples';

describe('where a colour shows most', () => {
  it('is the section with most of its drills, the first of equal ones, and nowhere for what is not there', () => {
    const chart = chartOfRows('1122', '1.22', '1112', '3112');
    const where = sectionWithMost(
      chart,
      cutIntoBlocks(panelsSideBySide(chart, 1), { columns: 2, rows: 2 }),
      4,
    );
    expect([1, 2, 3, 4].map(where)).toEqual([
      { section: 1, drills: 3 },
      { section: 2, drills: 4 },
      { section: 3, drills: 1 },
      null,
    ]);
  });
});
