import { describe, expect, it } from 'vitest';
import { panelsSideBySide } from '../../../src/core/canvas/canvas';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { cutIntoBlocks } from '../../../src/core/sections/blockGrid';
import { inFrontInWords, leftIn } from '../../../src/core/sections/inFront';
import { nextInOrder, noSuchSection } from '../../../src/core/sections/next';
import { sectionsBetween, sectionsTouching } from '../../../src/core/sections/pick';
import { makeSection, tallySections } from '../../../src/core/sections/section';
import { sectionInWords } from '../../../src/core/sections/sectionsInWords';
import { percentTicked, tickedColours } from '../../../src/core/sections/ticks';
import { chartOfRows } from '../samples';

describe('where a canvas was left', () => {
  const chart = chartOfRows('1122', '11.2', '3333');
  const part = { x: 2, y: 0, width: 2, height: 2 };

  it('is counted in its section alone, from a stretch of the canvas too', () => {
    const laid = emptyBitmap(12);
    setLaid(laid, 2, true);
    expect(leftIn({ lines: chart.cells, laid }, part, 4, 2)).toEqual({ all: 2, ofLine: 2 });
    expect(leftIn({ lines: chart.cells, laid }, part, 4, 1)).toEqual({ all: 2, ofLine: 0 });
    // The same from the first square of the section on.
    const stretch = { lines: chart.cells.slice(2), laid: emptyBitmap(10), first: 2 };
    expect(leftIn(stretch, part, 4, 2)).toEqual({ all: 3, ofLine: 3 });
    // Without a chart every square wants a drill, and none is of the colour.
    expect(leftIn({ lines: null, laid: emptyBitmap(12) }, part, 4, 2)).toEqual({ all: 4, ofLine: 0 });
  });

  it('is said with the colour as long as some of it is left there', () => {
    expect(inFrontInWords(30, '745', { all: 210, ofLine: 41 })).toBe('Section 30, colour 745, 41 left');
    expect(inFrontInWords(1030, '745', { all: 1210, ofLine: 0 })).toBe('Section 1,030, 1,210 left');
    expect(inFrontInWords(30, null, { all: 7, ofLine: 0 })).toBe('Section 30, 7 left');
    expect(inFrontInWords(30, '745', { all: 0, ofLine: 0 })).toBe('Section 30, all laid');
  });
});

describe('the next section', () => {
  const sections = [
    { drills: 4, laid: 4 },
    { drills: 4, laid: 1 },
    { drills: 0, laid: 0 },
    { drills: 4, laid: 0 },
  ].map((tally, i) => ({ ...tally, section: makeSection(i + 1, [{ x: i, y: 0, width: 1, height: 1 }]) }));

  it('is the next in order with something left, round the end', () => {
    expect(nextInOrder(sections, 1)).toBe(2);
    expect(nextInOrder(sections, 2)).toBe(4);
    expect(nextInOrder(sections, 4)).toBe(2);
    expect(nextInOrder([sections[0]!, sections[2]!], 1)).toBeNull();
    // The one in hand is no next one, even if something is left there.
    expect(nextInOrder([sections[0]!, sections[1]!], 2)).toBeNull();
  });

  it('is told how it stands', () => {
    expect(sections.map(sectionInWords)).toEqual([
      'Section 1: all 4 laid',
      'Section 2: 3 of 4 drills left',
      'Section 3: no drill goes here',
      'Section 4: 4 drills to lay',
    ]);
    expect(noSuchSection(9999, 1050)).toBe('There is no section 9,999; the last is 1,050.');
  });
});

describe('sections picked together', () => {
  // 5 × 4 squares in blocks of 2 × 2: three across, two down.
  const sections = cutIntoBlocks(panelsSideBySide({ width: 5, height: 4 }, 1), { columns: 2, rows: 2 });

  it('are those between two, whichever comes first', () => {
    expect(sectionsBetween(sections, 1, 5)).toEqual([1, 2, 4, 5]);
    expect(sectionsBetween(sections, 5, 1)).toEqual([1, 2, 4, 5]);
    expect(sectionsBetween(sections, 3, 3)).toEqual([3]);
    expect(sectionsBetween(sections, 3, 9)).toEqual([]);
  });

  it('are those that an area touches, not those beside it', () => {
    expect(sectionsTouching(sections, { x: 1, y: 1, width: 1, height: 1 })).toEqual([1]);
    expect(sectionsTouching(sections, { x: 1, y: 1, width: 2, height: 1 })).toEqual([1, 2]);
    expect(sectionsTouching(sections, { x: 4, y: 0, width: 1, height: 4 })).toEqual([3, 6]);
  });
});

describe('colours that are ticked without a chart', () => {
  const size = { width: 4, height: 2 };
  const halves = cutIntoBlocks(panelsSideBySide(size, 1), { columns: 2, rows: 2 });
  const left = { rects: [{ x: 0, y: 0, width: 2, height: 2 }] };

  it('count by the last word on them, and for no more than was ticked', () => {
    const ticks = [
      { ...left, line: 1, done: true },
      { ...left, line: 2, done: true },
      { ...left, line: 2, done: false },
    ];
    expect(tickedColours(ticks, halves)).toEqual([{ line: 1, section: 1 }]);
    // Cut finer afterwards, the pieces within are done; cut coarser, the whole is not.
    const fine = cutIntoBlocks(panelsSideBySide(size, 1), { columns: 1, rows: 2 });
    expect(tickedColours(ticks, fine)).toEqual([
      { line: 1, section: 1 },
      { line: 1, section: 2 },
    ]);
    expect(tickedColours(ticks, cutIntoBlocks(panelsSideBySide(size, 1), { columns: 4, rows: 2 }))).toEqual(
      [],
    );
  });

  it('are reckoned by squares, cut and not rounded', () => {
    const thirds = cutIntoBlocks(panelsSideBySide({ width: 3, height: 1 }, 1), { columns: 1, rows: 1 });
    const ticked = [
      { line: 7, section: 1 },
      { line: 7, section: 3 },
    ];
    expect([...percentTicked(ticked, thirds)]).toEqual([[7, 66.66]]);
    expect(tallySections(chartOfRows('111'), emptyBitmap(3), thirds, 1)).toHaveLength(3);
  });
});
