import { describe, expect, it } from 'vitest';
import { colourInFront, coloursInOrder, isMarkable, nextColour } from '../../../src/core/bench/colours';
import { chartOfRows, line } from '../samples';

const legend = [line(1), line(2), line(3), line(4)];
const order = coloursInOrder(legend, [0, 5, 9, 0, 5]);

describe('the colours of a section', () => {
  it('go from most drills to fewest, equal ones as on the sheet, without those that are not in it', () => {
    expect(order.map((each) => each.line)).toEqual([2, 1, 4]);
  });

  it('put the one asked for in front, else the first with something left', () => {
    const left = [0, 3, 0, 0, 2];
    expect(colourInFront(order, left, 2)?.line).toBe(2);
    expect(colourInFront(order, left, 3)?.line).toBe(1);
    expect(colourInFront(order, left, null)?.line).toBe(1);
    expect(colourInFront(order, [0, 0, 0, 0, 0], null)?.line).toBe(2);
    expect(colourInFront([], [], null)).toBeNull();
  });

  it('follow each other both ways round, past those that are done', () => {
    const left = [0, 3, 0, 0, 2];
    const step = (from: number | null, way: 1 | -1) =>
      nextColour(order, left, order.find((each) => each.line === from) ?? null, way)?.line;
    expect(step(1, 1)).toBe(4);
    expect(step(4, 1)).toBe(1);
    expect(step(1, -1)).toBe(4);
    expect(step(null, 1)).toBe(1);
    expect(step(null, -1)).toBe(4);
    expect(nextColour(order, [0, 0, 0, 0, 0], null, 1)).toBeNull();
  });
});

describe('a cell to mark', () => {
  const chart = chartOfRows('12.', '112');
  const section = { x: 0, y: 0, width: 2, height: 2 };

  it('lies in the section, wants a drill, and is of the colour in front', () => {
    expect(isMarkable(chart, section, 1, { x: 0, y: 1 })).toBe(true);
    expect(isMarkable(chart, section, 1, { x: 1, y: 0 })).toBe(false);
    expect(isMarkable(chart, section, null, { x: 1, y: 0 })).toBe(true);
    expect(isMarkable(chart, section, 2, { x: 2, y: 1 })).toBe(false);
    expect(isMarkable(chart, { ...section, width: 3 }, null, { x: 2, y: 0 })).toBe(false);
  });
});
