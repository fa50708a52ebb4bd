import { describe, expect, it } from 'vitest';
import { colourInFront, isMarkable, nextColour } from '../../../src/core/bench/colours';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { coloursInOrder } from '../../../src/core/placing/schools';
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
  const laid = emptyBitmap(6);
  const ground = { chart, laid };
  const section = { x: 0, y: 0, width: 2, height: 2 };

  it('lies in the section, wants a drill, and is of the colour in front', () => {
    expect(isMarkable(ground, section, 1, { x: 0, y: 1 }, false)).toBe(true);
    expect(isMarkable(ground, section, 1, { x: 1, y: 0 }, false)).toBe(false);
    expect(isMarkable(ground, section, null, { x: 1, y: 0 }, false)).toBe(true);
    expect(isMarkable(ground, section, 2, { x: 2, y: 1 }, false)).toBe(false);
    expect(isMarkable(ground, { ...section, width: 3 }, null, { x: 2, y: 0 }, false)).toBe(false);
  });

  it('that wants no drill can be lifted from, if one lies on it', () => {
    const bare = { x: 2, y: 0 };
    const wide = { ...section, width: 3 };
    expect(isMarkable(ground, wide, 1, bare, true)).toBe(false);
    const laidByArea = emptyBitmap(6);
    setLaid(laidByArea, 2, true);
    expect(isMarkable({ chart, laid: laidByArea }, wide, 1, bare, true)).toBe(true);
    expect(isMarkable({ chart, laid: laidByArea }, wide, 1, bare, false)).toBe(false);
    expect(isMarkable({ chart, laid: laidByArea }, section, 1, bare, true)).toBe(false);
  });
});
