import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { panelsSideBySide } from '../../../src/core/canvas/canvas';
import { edgeMarks } from '../../../src/core/cells/edgeMarks';
import { positionOf } from '../../../src/core/cells/position';
import { edgeStickers } from '../../../src/core/chart/files/edgeStickers';
import { nextOf, rarest, readFind, rectAround } from '../../../src/core/chart/find';
import { chartOfRows, line } from '../samples';

const canvas = {
  id: 'x',
  title: 'T',
  shape: 'square',
  pitchMm: 2.5,
  bagsCarry: null,
  width: 600,
  height: 440,
  panels: 1,
  symbolsPrinted: true,
  packetDrills: 200,
} as const;
const legend = [line(1, { code: '412', symbol: '★' }), line(2, { code: '98', symbol: 's1' })];
const find = (text: string) => readFind(text, canvas, legend);

describe('finding a place', () => {
  it('goes by column and row from 1', () => {
    expect(find('120 85')).toEqual({ kind: 'cell', x: 119, y: 84 });
    expect(find('600,440')).toEqual({ kind: 'cell', x: 599, y: 439 });
  });

  it('goes by distance from two edges, in centimetres or inches', () => {
    // Common practice, no source: cells ÷ 4 = cm at 2.5 mm. 12.5 cm end in column 50, 8 cm in row 32.
    expect(find('12.5 cm 8 cm')).toEqual({ kind: 'cell', x: 49, y: 31 });
    expect(find('12,5 8 cm')).toEqual({ kind: 'cell', x: 49, y: 31 });
    // 1 in = 25.4 mm: 5 in are 50.8 cells, so the 51st column.
    expect(find('5 in 3 in')).toEqual({ kind: 'cell', x: 50, y: 30 });
    expect(find('12.5cm r 8cm b')).toEqual({ kind: 'cell', x: 600 - 50, y: 440 - 32 });
  });

  it('takes fractions of inches, as a ruler shows them', () => {
    // 5 1/2 in are 139.7 mm, 55.88 cells: the 56th column; 3 1/4 in are 33.02 cells: the 34th row.
    for (const text of [
      '5 1/2 in 3 1/4 in',
      '5 1/2 3 1/4 in',
      '5½ in 3¼ in',
      '5.5" 3.25"',
      '5½ × 3¼ inches',
    ]) {
      expect(find(text), text).toEqual({ kind: 'cell', x: 55, y: 33 });
    }
    expect(find('3/4 in 1/2 in')).toEqual({ kind: 'cell', x: 7, y: 5 });
  });

  it('asks for the unit of broken numbers, and each offer is a place', () => {
    const asked = find('12.5 8.3');
    expect(asked).toEqual({
      kind: 'unit',
      offers: [
        { unit: 'cm', typed: '12.5 cm 8.3 cm' },
        { unit: 'in', typed: '12.5 in 8.3 in' },
        { unit: 'mm', typed: '12.5 mm 8.3 mm' },
      ],
    });
    expect(find('12.5 cm 8.3 cm')).toEqual({ kind: 'cell', x: 49, y: 33 });
    expect(find('12½ r 8 b')).toMatchObject({ offers: [{ typed: '12½ cm r 8 cm b' }, {}, {}] });
    expect(find('120 85').kind).toBe('cell');
  });

  it('counts from the nearest edge marks, onwards and back', () => {
    // Common practice, no source: a mark stands behind every 50th cell. The 7th behind 150 is 157; the 4th before it is 147.
    expect(find('150+7 100-4')).toEqual({ kind: 'cell', x: 156, y: 96 });
    expect(find('150 − 4, 100+1')).toEqual({ kind: 'cell', x: 146, y: 100 });
    // 1.5 cm are 6 cells.
    expect(find('150+1.5 cm 100-1 cm')).toEqual({ kind: 'cell', x: 155, y: 96 });
    expect(find('150+7 32')).toEqual({ kind: 'cell', x: 156, y: 31 });
    expect(find('0+1 0+1')).toEqual({ kind: 'cell', x: 0, y: 0 });
    expect(find('600+1 3')).toMatchObject({ kind: 'fault' });
  });

  it('finds again every cell by the distance of its middle', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 599 }), fc.integer({ min: 0, max: 439 }), (x, y) => {
        const { cm } = positionOf(x, y, canvas);
        expect(find(`${cm.fromLeft} cm ${cm.fromTop} cm`)).toEqual({ kind: 'cell', x, y });
      }),
    );
  });

  it('goes by section and by colour', () => {
    expect(find('s12')).toEqual({ kind: 'section', number: 12 });
    expect(find('section 3')).toEqual({ kind: 'section', number: 3 });
    expect(find('s1')).toMatchObject({ kind: 'colour', lines: [{ code: '98' }] });
    expect(find('★')).toMatchObject({ kind: 'colour', lines: [{ code: '412' }] });
  });

  it('says what it did not understand', () => {
    expect(find('601 1')).toMatchObject({
      kind: 'fault',
      words: expect.stringContaining('600 columns and 440 rows'),
    });
    expect(find('0 0')).toMatchObject({ kind: 'fault' });
    expect(find('moonlight')).toMatchObject({ kind: 'fault', words: expect.stringContaining('“moonlight”') });
    expect(find('')).toMatchObject({ kind: 'fault' });
  });

  it('steps from one drill of a colour to the next, and round', () => {
    const chart = chartOfRows('1.2', '21.');
    expect(nextOf(chart, 2, -1)).toEqual({ x: 2, y: 0 });
    expect(nextOf(chart, 2, 2)).toEqual({ x: 0, y: 1 });
    expect(nextOf(chart, 2, 3)).toEqual({ x: 2, y: 0 });
    expect(nextOf(chart, 7, 0)).toBeNull();
  });
});

describe('edge marks', () => {
  // Common practice, no source: every 50 cells, which are 12.5 cm.
  it('stand every fifty cells', () => {
    expect(edgeMarks(440, 50)).toEqual([50, 100, 150, 200, 250, 300, 350, 400]);
    expect(edgeMarks(40, 50)).toEqual([]);
  });

  it('are printed twice for each edge, on as many sheets as they take', () => {
    const texts = (panels: number, every: number) =>
      edgeStickers(panelsSideBySide(canvas, panels), every, 'a4').flatMap((page) =>
        page.marks.flatMap((mark) => (mark.kind === 'text' && /\d/.test(mark.text) ? [mark.text] : [])),
      );
    // 12 columns and 8 rows, each twice.
    expect(texts(1, 50)).toHaveLength(2 * 12 + 2 * 8);
    // Three panels of 200 columns: rows are stuck onto six edges; column 250 is the 50th of the second panel.
    expect(texts(3, 50).filter((text) => text === '300')).toHaveLength(2 * 3 + 2);
    expect(texts(3, 50).filter((text) => text === '50')).toHaveLength(2 * 3 + 2 + 2 + 2);
    expect(edgeStickers(panelsSideBySide(canvas, 1), 2, 'a4').length).toBeGreaterThan(1);
    const arrows = edgeStickers([{ x: 0, y: 0, width: 50, height: 50 }], 50, 'a4').flatMap((page) =>
      page.marks.flatMap((mark) => (mark.kind === 'text' && /[←-↓]/.test(mark.text) ? [mark.text] : [])),
    );
    expect(arrows).toEqual(['↓', '↑', '→', '←']);
  });
});

describe('what is found', () => {
  it('is a colour, also where a code stands for several', () => {
    const twins = [
      line(1, { code: '412' }),
      line(2, { code: '412', finish: 'metallic' }),
      line(3, { code: '98' }),
    ];
    expect(readFind(' 412 ', canvas, twins)).toEqual({ kind: 'colour', lines: twins.slice(0, 2) });
    expect(readFind('98', canvas, twins)).toEqual({ kind: 'colour', lines: [twins[2]] });
  });

  it('is a square of the canvas, from the first to the last, and none beside it', () => {
    const at = (typed: string) => readFind(typed, canvas, []);
    expect([at('1 1'), at('600 440')]).toEqual([
      { kind: 'cell', x: 0, y: 0 },
      { kind: 'cell', x: 599, y: 439 },
    ]);
    for (const typed of ['0 1', '1 0', '601 440', '600 441']) {
      expect(at(typed)).toEqual({
        kind: 'fault',
        words: 'That is outside the canvas, which has 600 columns and 440 rows.',
      });
    }
  });

  it('comes after the one before in reading order, and round the end; the first square counts', () => {
    const chart = chartOfRows('12.', '..1');
    expect([nextOf(chart, 1, -1), nextOf(chart, 1, 0), nextOf(chart, 1, 5)]).toEqual([
      { x: 0, y: 0 },
      { x: 2, y: 1 },
      { x: 0, y: 0 },
    ]);
    expect(nextOf(chart, 3, 0)).toBeNull();
  });

  it('is shown with what lies around it, on the canvas', () => {
    const size = { width: 100, height: 60 };
    expect(rectAround(50, 30, size)).toEqual({ x: 38, y: 23, width: 24, height: 14 });
    expect(rectAround(0, 0, size)).toEqual({ x: 0, y: 0, width: 24, height: 14 });
    expect(rectAround(99, 59, size)).toEqual({ x: 76, y: 46, width: 24, height: 14 });
    expect(rectAround(3, 2, { width: 10, height: 5 })).toEqual({ x: 0, y: 0, width: 10, height: 5 });
  });

  it('has the rarest colours first, and last those that are nowhere', () => {
    const lines = [line(1), line(2), line(3), line(4)];
    expect(rarest(lines, [0, 30, 0, 2, 7]).map((each) => each.line)).toEqual([3, 4, 1, 2]);
  });
});
