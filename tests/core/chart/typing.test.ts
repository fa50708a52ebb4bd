import { describe, expect, it } from 'vitest';
import { applyEdit } from '../../../src/core/chart/edit';
import { readTyped, rowEdits } from '../../../src/core/chart/typing';
import { chartOfRows, line } from '../samples';

const legend = [line(1, { symbol: 'A', code: '412' }), line(2, { symbol: '★', code: '98' })];

describe('typing rows from the printed canvas', () => {
  it('reads symbols one after the other, words, repeats and bare cells', () => {
    const chart = chartOfRows('......');
    const read = (text: string) => readTyped(text, chart, legend, { row: 0 });
    expect(read('AA★A.A')).toMatchObject({ cells: [1, 1, 2, 1, 0, 1], fault: null });
    expect(read('3*A . 98, 412')).toMatchObject({ cells: [1, 1, 1, 0, 2, 1], fault: null });
    expect(read('6*★').cells).toEqual([2, 2, 2, 2, 2, 2]);
  });

  it('says which cell is wrong, and where it differs from the chart', () => {
    const chart = chartOfRows('112', '221');
    expect(readTyped('AA', chart, legend, { row: 0 }).fault).toBe('Row 1 has 3 cells; this is 2.');
    expect(readTyped('A?A', chart, legend, { row: 1 }).fault).toBe('Cell 2 of it is no symbol of this kit.');
    expect(readTyped('A★A', chart, legend, { row: 0 }).differs).toEqual([2, 3]);
    // Read again by columns: the second column is 1, 2.
    expect(readTyped('A★', chart, legend, { column: 1 })).toMatchObject({ fault: null, differs: [] });
    expect(readTyped('AA', chart, legend, { column: 1 }).differs).toEqual([2]);
  });

  it('puts a row onto the chart', () => {
    const chart = chartOfRows('...', '...');
    for (const edit of rowEdits(readTyped('A★A', chart, legend, { row: 1 }), chart, 1))
      applyEdit(chart, edit);
    expect([...chart.cells]).toEqual([0, 0, 0, 1, 2, 1]);
  });

  it('takes an asterisk and an emoji of several parts for what they are', () => {
    const legend = [line(1, { symbol: '*' }), line(2, { symbol: '👩🏽‍🌾' }), line(3, { symbol: 'é' })];
    const chart = chartOfRows('....');
    const read = (text: string) => readTyped(text, chart, legend, { row: 0 }).cells;
    expect(read('*👩🏽‍🌾*é')).toEqual([1, 2, 1, 3]);
    expect(read('3** é')).toEqual([1, 1, 1, 3]);
    expect(read('****')).toEqual([1, 1, 1, 1]);
  });
});
