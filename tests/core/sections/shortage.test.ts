import { describe, expect, it } from 'vitest';
import { applyMark } from '../../../src/core/bench/marking';
import { emptyBitmap } from '../../../src/core/cells/bitmap';
import { makeSection } from '../../../src/core/sections/section';
import { sectionsWhereShort } from '../../../src/core/sections/shortage';
import { chartOfRows } from '../samples';

describe('the section where a colour runs out', () => {
  const chart = chartOfRows('1122', '1122');
  const sections = [0, 1, 2, 3].map((i) =>
    makeSection(i + 1, [{ x: (i % 2) * 2, y: Math.floor(i / 2), width: 2, height: 1 }]),
  );

  it('is the first whose need goes beyond the good drills, and none where they last', () => {
    // Two of colour 1 in section 1 and two in section 3; the third drill is the last.
    expect(sectionsWhereShort(chart, emptyBitmap(8), sections, [0, 3, 4])).toEqual([0, 3, 0]);
    expect(sectionsWhereShort(chart, emptyBitmap(8), sections, [0, 4, 1])).toEqual([0, 0, 2]);
  });

  it('follows the order of the work, not the numbers', () => {
    const backwards = sections.map((section, i) => ({ ...section, order: 4 - i }));
    expect(sectionsWhereShort(chart, emptyBitmap(8), backwards, [0, 3, 4])).toEqual([0, 1, 0]);
  });

  it('passes over colours that the list does not have', () => {
    expect(sectionsWhereShort(chart, emptyBitmap(8), sections, [0, 3])).toEqual([0, 3]);
  });

  it('counts a drill that is laid once, not again with its section', () => {
    const laid = emptyBitmap(8);
    applyMark(laid, 'lay', [0, 2]);
    expect(sectionsWhereShort(chart, laid, sections, [0, 4, 4])).toEqual([0, 0, 0]);
    expect(sectionsWhereShort(chart, laid, sections, [0, 3, 4])).toEqual([0, 3, 0]);
  });

  it('passes over squares that want no drill', () => {
    expect(sectionsWhereShort(chartOfRows('1..1'), emptyBitmap(4), sections.slice(0, 2), [0, 1])).toEqual([
      0, 2,
    ]);
  });
});
