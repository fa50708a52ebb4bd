import { describe, expect, it } from 'vitest';
import { applyEdit } from '../../../src/core/chart/edit';
import { readTyped, typedEdits } from '../../../src/core/chart/typing';
import { chartOfRows, line } from '../samples';

const legend = [line(1, { symbol: 'A', code: '412' }), line(2, { symbol: '★', code: '98' })];

const wholeRow = (row: number) => ({ row, column: 0, part: false });

describe('typing rows from the printed canvas', () => {
  it('reads symbols one after the other, words, repeats and bare cells', () => {
    const chart = chartOfRows('......');
    const read = (text: string) => readTyped(text, chart, legend, wholeRow(0));
    expect(read('AA★A.A')).toMatchObject({ rows: [[1, 1, 2, 1, 0, 1]], fault: null });
    expect(read('3*A . 98, 412')).toMatchObject({ rows: [[1, 1, 1, 0, 2, 1]], fault: null });
    expect(read('6*★').rows).toEqual([[2, 2, 2, 2, 2, 2]]);
  });

  it('says which cell is wrong, and where it differs from the chart', () => {
    const chart = chartOfRows('112', '221');
    const row = (text: string, at: number) => readTyped(text, chart, legend, wholeRow(at));
    expect(row('AA', 0).fault).toBe('Row 1 has 3 squares; this is 2.');
    expect(row('A?A', 1).fault).toBe('Square 2 of row 2 is no symbol of this kit.');
    expect(row('A★A', 0).differs).toEqual([
      { column: 2, row: 1 },
      { column: 3, row: 1 },
    ]);
    // Read again by columns: the second column is 1, 2.
    expect(readTyped('A★', chart, legend, { column: 1 })).toMatchObject({ fault: null, differs: [] });
    expect(readTyped('AA', chart, legend, { column: 1 }).differs).toEqual([{ column: 2, row: 2 }]);
    expect(readTyped('A★\nA★', chart, legend, { column: 1 }).fault).toContain('One column');
    expect(row(' \n ', 0).fault).toBe('Nothing is typed yet.');
  });

  const typedOn = (text: string, at: { row: number; column: number; part: boolean }) => {
    const chart = chartOfRows('...', '...', '...');
    const typed = readTyped(text, chart, legend, at);
    if (typed.fault !== null) return typed.fault;
    for (const edit of typedEdits(typed, chart, at)) applyEdit(chart, edit);
    return [...chart.cells];
  };

  it('puts a row onto the chart, several rows, or parts of them', () => {
    expect(typedOn('A★A', wholeRow(1))).toEqual([0, 0, 0, 1, 2, 1, 0, 0, 0]);
    expect(typedOn('AAA\nA★★\r\n', wholeRow(1))).toEqual([0, 0, 0, 1, 1, 1, 1, 2, 2]);
    const part = { row: 0, column: 1, part: true };
    expect(typedOn('★', part)).toEqual([0, 2, 0, 0, 0, 0, 0, 0, 0]);
    expect(typedOn('★A\n★', part)).toEqual([0, 2, 1, 0, 2, 0, 0, 0, 0]);
    expect(typedOn('★★★', part)).toBe('Row 1 has 2 squares; this is 3.');
    expect(typedOn('AAA\nAAA', wholeRow(2))).toBe('From row 3 on the canvas has 1 row; these are 2.');
    // A slip in one of several rows is not taken for a part.
    expect(typedOn('AAA\nAA', wholeRow(0))).toBe('Row 2 has 3 squares; this is 2.');
  });

  it('takes a sign for a symbol, and for a key number only where that is what the chart shows', () => {
    const kit = [
      line(1, { symbol: 'A', keyNumber: '7' }),
      line(2, { symbol: null, keyNumber: '2' }),
      line(3, { symbol: '3', keyNumber: '1' }),
    ];
    const read = (text: string) =>
      readTyped(text, chartOfRows('...'), kit, { row: 0, column: 0, part: true });
    expect(read('A23').rows).toEqual([[1, 2, 3]]);
    expect(read('A7').fault).toBe('Square 2 of row 1 is no symbol of this kit.');
    expect(read('1').fault).toBe('Square 1 of row 1 is no symbol of this kit.');
    // Words may be any of them.
    expect(read('7 2 A').rows).toEqual([[1, 2, 1]]);
  });

  it('takes a comma, a semicolon or a star for a symbol where the kit has it', () => {
    const kit = [
      line(1, { symbol: 'A' }),
      line(2, { symbol: ',' }),
      line(3, { symbol: ';' }),
      line(4, { symbol: '*' }),
      line(5, { symbol: '3' }),
    ];
    const chart = chartOfRows('......');
    // Without a word: six signs are six squares, and none is lost between the others.
    const part = { row: 0, column: 0, part: true };
    const read = (text: string) => readTyped(text, chart, kit, part);
    expect(read('A,A;,A').rows).toEqual([[1, 2, 1, 3, 2, 1]]);
    expect(read('A , ; A').rows).toEqual([[1, 2, 3, 1]]);
    expect(read('3*A').rows).toEqual([[5, 4, 1]]);
    expect(read('3*A *').rows).toEqual([[1, 1, 1, 4]]);
    expect(read('2*A').fault).toBe('Square 1 of row 1 is no symbol of this kit.');
    // Where no symbol is a comma it stands between words.
    expect(readTyped('A,98;A', chart, legend, part).rows).toEqual([[1, 2, 1]]);
  });

  it('takes an asterisk and an emoji of several parts for what they are', () => {
    const legend = [line(1, { symbol: '*' }), line(2, { symbol: '👩🏽‍🌾' }), line(3, { symbol: 'é' })];
    const chart = chartOfRows('....');
    const read = (text: string) => readTyped(text, chart, legend, wholeRow(0)).rows[0];
    expect(read('*👩🏽‍🌾*é')).toEqual([1, 2, 1, 3]);
    expect(read('3** é')).toEqual([1, 1, 1, 3]);
    expect(read('****')).toEqual([1, 1, 1, 1]);
  });
});
