import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyBitmap, setLaid } from '../../../../src/core/cells/bitmap';
import { chartFromGrid, chartToGrid } from '../../../../src/core/chart/files/fromGrid';
import { chartFromPixels } from '../../../../src/core/chart/files/fromPixels';
import { hexToRgb } from '../../../../src/core/colour/rgb';
import { clothColours, paintCloth } from '../../../../src/core/view/paint';
import { chartOfRows, line } from '../../samples';

const legend = [
  line(1, { code: '412', symbol: 'A', hex: '#ff0000' }),
  line(2, { code: 'SH77', symbol: 'a', hex: '#00ff00' }),
  line(3, { code: '1203', symbol: '0', hex: '#0000ff' }),
];

function pixels(...hexes: (string | null)[]): Uint8Array {
  return Uint8Array.from(hexes.flatMap((hex) => (hex === null ? [9, 9, 9, 0] : [...hexToRgb(hex), 255])));
}

describe('chart from pixels', () => {
  it('matches each colour to its line and leaves transparent cells bare', () => {
    const { chart, unmatched, nearly } = chartFromPixels(
      2,
      2,
      pixels('#ff0000', '#0000ff', null, '#00ff00'),
      legend,
    );
    expect([...chart.cells]).toEqual([1, 3, 0, 2]);
    expect(unmatched).toEqual([]);
    expect(nearly).toEqual([]);
  });

  it('takes a colour no eye tells apart, and says so', () => {
    const { chart, nearly } = chartFromPixels(1, 1, pixels('#fe0000'), legend);
    expect([...chart.cells]).toEqual([1]);
    expect(nearly[0]).toMatchObject({ hex: '#fe0000', cells: 1, line: 1 });
    expect(nearly[0]!.difference).toBeLessThan(1);
  });

  it('lists colours of no line, the most frequent first', () => {
    const { chart, unmatched } = chartFromPixels(
      4,
      1,
      pixels('#123456', '#ffffff', '#ffffff', '#ff0000'),
      legend,
    );
    expect([...chart.cells]).toEqual([0, 0, 0, 1]);
    expect(unmatched).toEqual([
      { value: '#ffffff', cells: 2 },
      { value: '#123456', cells: 1 },
    ]);
  });

  it('passes over lines without a colour', () => {
    const { unmatched } = chartFromPixels(1, 1, pixels('#ff0000'), [line(1, { hex: null })]);
    expect(unmatched).toEqual([{ value: '#ff0000', cells: 1 }]);
  });

  it('reads back what the painter paints', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 12, maxLength: 12 }), (cells) => {
        const chart = { width: 4, height: 3, cells: Uint16Array.from(cells) };
        const rgba = new Uint8ClampedArray(48);
        const colours = clothColours(
          legend.map((entry) => hexToRgb(entry.hex!)),
          [250, 250, 250],
        );
        paintCloth(chart, colours, { laid: null, focus: null }, rgba);
        expect(chartFromPixels(4, 3, rgba, legend).chart).toEqual(chart);
      }),
    );
  });
});

describe('painting', () => {
  const colours = clothColours(
    legend.map((entry) => hexToRgb(entry.hex!)),
    [240, 240, 240],
  );
  const chart = chartOfRows('12.');
  const paint = (wish: Parameters<typeof paintCloth>[2]) => {
    const rgba = new Uint8ClampedArray(12);
    paintCloth(chart, colours, wish, rgba);
    return [0, 1, 2].map((cell) => [...rgba.subarray(cell * 4, cell * 4 + 3)]);
  };

  it('shows laid drills full and the rest as a pale print', () => {
    const laid = emptyBitmap(3);
    setLaid(laid, 0, true);
    const [first, second, bare] = paint({ laid, focus: null });
    expect(first).toEqual([255, 0, 0]);
    expect(second).toEqual(colours.printed[2]);
    expect(bare).toEqual([240, 240, 240]);
  });

  it('brings a chosen colour forward and quiets the rest', () => {
    const [first, second] = paint({ laid: null, focus: new Set([2]) });
    expect(second).toEqual([0, 255, 0]);
    expect(Math.max(...first!) - Math.min(...first!)).toBeLessThan(20);
  });
});

describe('chart from a grid', () => {
  const size = { width: 3, height: 2 };

  it('reads symbols, and keeps capital and small letters apart', () => {
    const { chart } = chartFromGrid('A,a,0\n0,,A\n', size, legend);
    expect([...chart.cells]).toEqual([1, 2, 3, 3, 0, 1]);
  });

  it('reads codes in any letter case, parted by semicolon or tab', () => {
    expect([...chartFromGrid('412;sh77;1203\n412;;412', size, legend).chart.cells]).toEqual([
      1, 2, 3, 1, 0, 1,
    ]);
    expect([...chartFromGrid('412\tSH77\t1203\r\n412\t\t412\r\n', size, legend).chart.cells]).toEqual([
      1, 2, 3, 1, 0, 1,
    ]);
  });

  it('reads all words in one way, says which, and says what else they could be', () => {
    // The symbols are the key numbers of other colours, and the codes are symbols.
    const tangled = [
      line(1, { symbol: '2', keyNumber: '1', code: '3' }),
      line(2, { symbol: '3', keyNumber: '2', code: '1' }),
      line(3, { symbol: '1', keyNumber: '3', code: '2' }),
    ];
    const read = (wanted: 'symbols' | 'codes' | 'key numbers' | null) =>
      chartFromGrid('1,2,3\n3,2,1', size, tangled, wanted);
    const chosen = read(null);
    expect([...chosen.chart.cells]).toEqual([3, 1, 2, 2, 1, 3]);
    expect(chosen.words).toEqual({ kind: 'symbols', others: ['codes', 'key numbers'] });
    expect(chosen.notices[0]).toContain('They could be codes or key numbers as well');
    expect([...read('key numbers').chart.cells]).toEqual([1, 2, 3, 3, 2, 1]);
    expect([...read('codes').chart.cells]).toEqual([2, 3, 1, 1, 3, 2]);
    // One code that is also a symbol does not turn a grid of codes into symbols, cell by cell.
    const kit = [line(1, { code: '412', symbol: 'A' }), line(2, { code: '98', symbol: '412' })];
    const codes = chartFromGrid('412,98,412\n98,98,412', size, kit);
    expect([...codes.chart.cells]).toEqual([1, 2, 1, 2, 2, 1]);
    expect(codes.words).toEqual({ kind: 'codes', others: [] });
  });

  it('counts words of no line', () => {
    const { unmatched } = chartFromGrid('A,x,y\nx,A,A', size, legend);
    expect(unmatched).toEqual([
      { value: 'x', cells: 2 },
      { value: 'y', cells: 1 },
    ]);
  });

  it('leaves the numbers of columns and rows out, and says so, where the canvas is that much smaller', () => {
    const wide = { width: 8, height: 8 };
    const rows = Array.from({ length: 8 }, (_, y) => [y + 1, ...'AAaa0AAa']);
    const numbered = [['', 1, 2, 3, 4, 5, 6, 7, 8], ...rows].map((row) => row.join()).join('\n');
    const { chart, notices } = chartFromGrid(numbered, wide, legend);
    expect([...chart.cells.subarray(0, 8)]).toEqual([1, 1, 2, 2, 3, 1, 1, 2]);
    expect(notices).toContain(
      'The first row and the first column of the grid number its squares and were left out.',
    );
    // On a canvas with one more each way they are drills, as they would be by key number.
    const keys = ['1,2,3,4,5,6,7,8', '1,1,1,1,1,1,1,1'].join('\n');
    const own = Array.from({ length: 8 }, (_, i) => line(i + 1));
    const read = chartFromGrid(keys, { width: 8, height: 2 }, own);
    expect([...read.chart.cells.subarray(0, 8)]).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    expect(read.notices).toHaveLength(1);
  });

  it('takes quotation marks for symbols where nothing is quoted', () => {
    const kit = [line(1, { symbol: '"' }), line(2, { symbol: ',' })];
    const { chart } = chartFromGrid('"\t,\t"\n,\t"\t,\n', size, kit);
    expect([...chart.cells]).toEqual([1, 2, 1, 2, 1, 2]);
  });

  it('names the line that is too short', () => {
    expect(() => chartFromGrid('A,A,A\nA,A', size, legend)).toThrow(
      'Line 2 of the grid has 2 cells; the canvas is 3 wide.',
    );
  });

  it('names a wrong number of rows', () => {
    expect(() => chartFromGrid('A,A,A', size, legend)).toThrow('The grid has 1 row; the canvas has 2.');
  });

  it('comes back the same over a grid of codes', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 6, maxLength: 6 }), (cells) => {
        const chart = { ...size, cells: Uint16Array.from(cells) };
        expect(chartFromGrid(chartToGrid(chart, legend), size, legend).chart).toEqual(chart);
        // One code in two finishes, and a code that is another's symbol.
        const twins = [...legend.slice(0, 2), line(3, { code: '412', finish: 'glow', symbol: 'SH77' })];
        expect(chartFromGrid(chartToGrid(chart, twins), size, twins).chart).toEqual(chart);
      }),
    );
  });
});
