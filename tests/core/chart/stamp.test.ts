import { describe, expect, it } from 'vitest';
import { applyEdit } from '../../../src/core/chart/edit';
import { stampEdits, stampFromText, stampOf } from '../../../src/core/chart/stamp';
import { chartOfRows, line } from '../samples';

const legend = [line(1), line(2), line(3, { code: 'SH77' })];

describe('a stamp', () => {
  it('puts a part of the chart elsewhere, cut off at the edge', () => {
    const chart = chartOfRows('12..', '3...', '....');
    const stamp = stampOf(chart, { x: 0, y: 0, width: 2, height: 2 });
    for (const edit of stampEdits(stamp, chart, { x: 3, y: 1 })) applyEdit(chart, edit);
    expect([...chart.cells]).toEqual([...chartOfRows('12..', '3..1', '...3').cells]);
  });

  it('changes nothing where the same lies already', () => {
    const chart = chartOfRows('12', '3.');
    expect(stampEdits(stampOf(chart, { x: 0, y: 0, width: 2, height: 2 }), chart, { x: 0, y: 0 })).toEqual(
      [],
    );
  });

  it('is read from copied rows of symbols or codes; empty cells leave what is there', () => {
    const stamp = stampFromText('A\tsh77\n\t.\tB\n', legend);
    expect(stamp).toEqual({ width: 3, height: 2, cells: [1, 3, null, null, 0, 2] });
    const chart = chartOfRows('222', '222');
    for (const edit of stampEdits(stamp, chart, { x: 0, y: 0 })) applyEdit(chart, edit);
    expect([...chart.cells]).toEqual([1, 3, 2, 2, 0, 2]);
    expect(() => stampFromText('A\tQ', legend)).toThrow('“Q” in row 1 of what was copied');
  });

  it.each(['\t', ',', ';', '|'])('is parted by one sign, “%s”; the others may be symbols', (sign) => {
    const others = [',', ';', '|'].filter((each) => each !== sign);
    const list = [line(1, { symbol: 'A' }), ...others.map((symbol, i) => line(i + 2, { symbol }))];
    const text = [`A ${others[0]} A`, `${others[1]} A A`]
      .map((row) => row.replaceAll(' ', sign))
      .join('\r\n');
    expect(stampFromText(`${text}\r\n\r\n`, list)).toEqual({
      width: 3,
      height: 2,
      cells: [1, 2, 1, 3, 1, 1],
    });
  });

  it('may be one square, or one row or column of them', () => {
    const cells = (text: string) => stampFromText(text, legend).cells;
    expect([cells('A'), cells('A\tB'), cells('A\nB\n')]).toEqual([[1], [1, 2], [1, 2]]);
    const signs = [line(1, { symbol: 'A' }), line(2, { symbol: ';' }), line(3, { symbol: ',' })];
    expect(stampFromText('A\n;\n\n,\n', signs)).toEqual({ width: 1, height: 4, cells: [1, 2, null, 3] });
    expect(stampFromText(';', signs).cells).toEqual([2]);
    const long = [line(1, { code: '412' }), line(2, { symbol: '|' })];
    expect(stampFromText('412\n|\n412', long)).toEqual({ width: 1, height: 3, cells: [1, 2, 1] });
    // Of two columns each row has one square that is empty.
    expect(stampFromText('A\t\n\tB', legend)).toEqual({ width: 2, height: 2, cells: [1, null, null, 2] });
    // A quotation mark is a sign like others.
    const quoted = [line(1, { symbol: '"' }), line(2, { symbol: 'B' })];
    expect(stampFromText('"\tB\nB\tB', quoted)).toEqual({ width: 2, height: 2, cells: [1, 2, 2, 2] });
    // Empty squares of two columns, beside others.
    expect(stampFromText('A;A\n;', [signs[0]!])).toEqual({ width: 2, height: 2, cells: [1, 1, null, null] });
  });

  it('has 250,000 squares at most, counted by its widest row', () => {
    const rows = (last: number) =>
      [...Array(499).fill(`${'A\t'.repeat(499)}A`), `${'A\t'.repeat(last - 1)}A`].join('\n');
    expect(stampFromText(rows(500), legend).cells).toHaveLength(250_000);
    expect(() => stampFromText(rows(501), legend)).toThrow('too much to paste in one go');
  });
});
