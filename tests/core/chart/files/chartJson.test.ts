import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chartFromJson, chartToJson } from '../../../../src/core/chart/files/chartJson';
import { chartOfRows, line } from '../../samples';

const legend = [line(1), line(2), line(3, { finish: 'metallic', code: '401' })];
const size = { width: 4, height: 3 };

describe('a chart as JSON', () => {
  it('comes back the same, bare cells and colours of another finish too', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 12, maxLength: 12 }), (cells) => {
        const chart = { ...size, cells: Uint16Array.from(cells) };
        expect(chartFromJson(chartToJson(chart, legend), size, legend).chart).toEqual(chart);
      }),
    );
  });

  it('is matched to another sheet by code, and what is on no line is counted', () => {
    const text = chartToJson(chartOfRows('1122', '2221', '....'), legend);
    const reading = chartFromJson(text, size, [line(1, { code: '402' })]);
    expect([...reading.chart.cells.subarray(0, 8)]).toEqual([0, 0, 1, 1, 1, 1, 1, 0]);
    expect(reading.unmatched).toEqual([{ value: '401', cells: 3 }]);
  });

  it('is refused in words when it is cut short, something else, or of another size', () => {
    const text = chartToJson(chartOfRows('1122', '2221', '....'), legend);
    const read = (json: string) => () => chartFromJson(json, size, legend);
    expect(read(text.slice(0, 60))).toThrow('not JSON, or it is cut short');
    expect(read('{"a": 1}')).toThrow('no Oculent chart');
    expect(read('[]')).toThrow('no Oculent chart');
    expect(read(text.replace('"width": 4', '"width": 5'))).toThrow('5 × 3 squares; the canvas has 4 × 3');
    expect(read(text.replace('[1,2,2,2]', '[1,2,2,1]'))).toThrow(
      'Row 1 has 3 squares; the canvas is 4 wide.',
    );
    expect(read(text.replace('[1,2,2,2]', '[1,2,2,9]'))).toThrow('Row 1 has more than 4 squares.');
    expect(read(text.replace('[1,2,2,2]', '[1,2,2]'))).toThrow('pairs of line and count');
    expect(read(text.replace('[1,2,2,2]', '"1,2"'))).toThrow('pairs of line and count');
    expect(read(text.replace('[0,4]', '[0,4],[0,4]'))).toThrow('must have 3 rows');
  });
});
