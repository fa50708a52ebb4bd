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
});
