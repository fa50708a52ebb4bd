import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { panelsSideBySide } from '../../../src/core/canvas/canvas';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { plainCloth } from '../../../src/core/cells/chart';
import { countInPart } from '../../../src/core/cells/rect';
import { cutIntoBlocks } from '../../../src/core/sections/blockGrid';
import { sectionAt, tallySections } from '../../../src/core/sections/section';
import { chartOfRows } from '../samples';

describe('cutting into blocks', () => {
  it('cuts 120 × 160 into 6 × 8 blocks of 20', () => {
    const sections = cutIntoBlocks(panelsSideBySide({ width: 120, height: 160 }, 1), {
      columns: 20,
      rows: 20,
    });
    expect(sections).toHaveLength(48);
    expect(sections[0]).toMatchObject({ number: 1, order: 1, x: 0, y: 0, width: 20, height: 20 });
    expect(sections[6]).toMatchObject({ number: 7, order: 7, x: 0, y: 20, width: 20, height: 20 });
  });

  it('starts afresh at each panel', () => {
    const sections = cutIntoBlocks(panelsSideBySide({ width: 50, height: 10 }, 2), { columns: 20, rows: 10 });
    expect(sections.map((each) => [each.x, each.width])).toEqual([
      [0, 20],
      [20, 5],
      [25, 20],
      [45, 5],
    ]);
  });

  it('covers every cell exactly once', () => {
    const side = fc.integer({ min: 1, max: 60 });
    fc.assert(
      fc.property(
        side,
        side,
        fc.integer({ min: 1, max: 3 }),
        side,
        side,
        (width, height, panels, columns, rows) => {
          const sections = cutIntoBlocks(panelsSideBySide({ width, height }, Math.min(panels, width)), {
            columns,
            rows,
          });
          const times = new Uint8Array(width * height);
          for (const section of sections) {
            for (let y = section.y; y < section.y + section.height; y++) {
              for (let x = section.x; x < section.x + section.width; x++) times[y * width + x]!++;
            }
          }
          expect(times.every((count) => count === 1)).toBe(true);
          sections.forEach((section, i) => {
            expect(section.number).toBe(i + 1);
            expect(sectionAt(sections, section.x, section.y)).toBe(section);
          });
        },
      ),
    );
  });

  it('finds no section beside the canvas', () => {
    const sections = cutIntoBlocks(panelsSideBySide({ width: 10, height: 10 }, 1), { columns: 5, rows: 5 });
    expect(sectionAt(sections, 10, 0)).toBeNull();
  });
});

describe('tally of a section', () => {
  const chart = chartOfRows('1122', '113.', '4444', '4..4');
  const sections = cutIntoBlocks(panelsSideBySide(chart, 1), { columns: 2, rows: 2 });

  it('counts drills, colours and the largest colour', () => {
    const laid = emptyBitmap(16);
    setLaid(laid, 0, true);
    setLaid(laid, 2, true);
    const tallies = tallySections(chart, laid, sections, 4);
    expect(
      tallies.map(({ drills, laid: done, colours, largest }) => [drills, done, colours, largest]),
    ).toEqual([
      [4, 1, 1, { line: 1, drills: 4 }],
      [3, 1, 2, { line: 2, drills: 2 }],
      [3, 0, 1, { line: 4, drills: 3 }],
      [3, 0, 1, { line: 4, drills: 3 }],
    ]);
  });

  it('has no largest colour where nothing is to lay', () => {
    const bare = chartOfRows('..', '..');
    expect(
      tallySections(
        bare,
        emptyBitmap(4),
        cutIntoBlocks(panelsSideBySide(bare, 1), { columns: 2, rows: 2 }),
        1,
      )[0],
    ).toMatchObject({
      drills: 0,
      colours: 0,
      largest: null,
    });
  });

  it('adds up to the canvas', () => {
    const tallies = tallySections(chart, emptyBitmap(16), sections, 4);
    expect(tallies.reduce((sum, each) => sum + each.drills, 0)).toBe(13);
  });

  it('counts what is left once something is laid', () => {
    const laid = emptyBitmap(100);
    for (let cell = 0; cell < 7; cell++) setLaid(laid, cell, true);
    const all = { x: 0, y: 0, width: 10, height: 10 };
    expect(countInPart(plainCloth(10, 10), all, 1, laid)[1]).toBe(93);
    expect(countInPart(plainCloth(10, 10), all, 1, null)[1]).toBe(100);
  });
});
