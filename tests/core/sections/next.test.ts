import { describe, expect, it } from 'vitest';
import { panelsSideBySide } from '../../../src/core/canvas/canvas';
import { cutIntoBlocks } from '../../../src/core/sections/blockGrid';
import { nextToDo, sectionAsked, sectionByKey } from '../../../src/core/sections/next';

const sections = cutIntoBlocks(panelsSideBySide({ width: 50, height: 40 }, 1), { columns: 20, rows: 20 });
const tallied = (laid: number[]) =>
  sections.map((section, i) => ({ section, drills: i === 1 ? 0 : 10, laid: laid[i]! }));

describe('the section to work on', () => {
  it('is the first with something left, the first of all where nothing is', () => {
    expect(nextToDo(tallied([10, 0, 9, 10, 10, 10]))).toBe(3);
    expect(nextToDo(tallied([10, 0, 10, 10, 10, 10]))).toBe(1);
  });

  it('is the one asked for where there is one', () => {
    const tallies = tallied([10, 0, 9, 10, 10, 10]);
    expect([5, 6, 7, 0, -1, null].map((asked) => sectionAsked(tallies, asked))).toEqual([5, 6, 3, 3, 3, 3]);
  });

  it('is reached by arrows, and stays at the edge', () => {
    expect(sections).toHaveLength(6);
    const from = (number: number) =>
      ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'].map((key) => sectionByKey(sections, number, key));
    expect(from(1)).toEqual([1, 2, 1, 4]);
    expect(from(6)).toEqual([5, 6, 3, 6]);
    expect(sectionByKey(sections, 1, 'Enter')).toBeNull();
    expect(sectionByKey(sections, 9, 'ArrowUp')).toBeNull();
  });
});
