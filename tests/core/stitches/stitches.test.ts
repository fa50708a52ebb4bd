import { describe, expect, it } from 'vitest';
import { cellsToCm } from '../../../src/core/canvas/canvas';
import { readStitches } from '../../../src/core/stitches/fromStitches';
import { readRange, readThreads } from '../../../src/core/stitches/threadList';

const THREADS =
  'Symbol,Code,Name,Hex\nx,T11,Peat,#000000\no,T52,Bark,#17120c\n+,T40,Berry,#c8402e\nv,T90,Snow,#ffffff\n';
const RANGE = 'code;name;hex\nT11;Peat;#0a0806\nT40;Berry;#c8402e\nW1;Chalk;#fdfdfa\n';
const GRID = 'x,x,o,+\nv,o,o,\n';
const none = new Map<string, string>();
const read = (chosen = none, grid = GRID, range: string | null = RANGE) =>
  readStitches(grid, readThreads(THREADS), range === null ? null : readRange(range), chosen, 200);

describe('a stitch chart', () => {
  it('becomes cells of drills: stitches ÷ 4 are centimetres at 2.5 mm (common practice, no source)', () => {
    const { width, height, result } = read();
    expect([width, height]).toEqual([4, 2]);
    expect(cellsToCm(240, 2.5)).toBe(60);
    expect(result!.legend.map(({ code, neededDrills, packets }) => [code, neededDrills, packets])).toEqual([
      ['T11', 5, 1],
      ['T40', 1, 1],
      ['W1', 1, 1],
    ]);
    expect([...result!.chart.cells]).toEqual([1, 1, 1, 2, 3, 1, 1, 0]);
  });

  it('gives a code that has no drill the nearest colour, and adds up what two threads share', () => {
    const { threads, merges } = read();
    expect(threads.map(({ how, drill }) => [how, drill])).toEqual([
      ['same', 'T11'],
      ['nearest', 'T11'],
      ['same', 'T40'],
      ['nearest', 'W1'],
    ]);
    expect(threads[3]!.inWords).not.toBe('');
    expect(merges).toEqual([
      {
        drill: 'T11',
        threads: [
          { code: 'T11', inWords: '' },
          { code: 'T52', inWords: expect.stringMatching(/./) },
        ],
        drills: 5,
      },
    ]);
  });

  it('lets the user overrule any of them', () => {
    const { threads, merges, result } = read(new Map([['T52', 'T52']]));
    expect(threads[1]).toMatchObject({ how: 'chosen', drill: 'T52' });
    expect(merges).toEqual([]);
    expect(result!.legend.map(({ code, hex }) => [code, hex])).toContainEqual(['T52', '#17120c']);
  });

  it('takes every code as it is where no range is given', () => {
    const { threads, result } = read(none, GRID, null);
    expect(threads.every(({ how }) => how === 'same')).toBe(true);
    expect(result!.legend.map(({ code }) => code)).toEqual(['T11', 'T40', 'T52', 'T90']);
  });

  it('waits for the user where a thread has no colour to compare', () => {
    const threads = readThreads('symbol,code\nx,T11\no,9\n+,T40\nv,8\n');
    const open = readStitches(GRID, threads, readRange(RANGE), none, 200);
    expect(open.result).toBeNull();
    expect(open.threads.map(({ how }) => how)).toEqual(['same', 'open', 'same', 'open']);
    const settled = readStitches(
      GRID,
      threads,
      readRange(RANGE),
      new Map([
        ['9', 'T11'],
        ['8', 'W1'],
      ]),
      200,
    );
    expect(settled.result!.legend).toHaveLength(3);
  });

  it('counts words that are no thread, and refuses what is ragged, fractional, a back stitch or too large', () => {
    expect(read(none, 'x,?\n?,x\n').unmatched).toEqual([{ value: '?', cells: 2 }]);
    expect(() => read(none, 'x,x\nx\n')).toThrow('Line 2 of the grid has 1 cells, but the first has 2.');
    for (const fraction of ['½x', '1/2 x', 'x/o', '¼']) {
      expect(() => read(none, `x,x\nx,${fraction}\n`)).toThrow('Column 2, row 2 of the grid holds');
    }
    for (const stitch of ['Back stitch', 'half', 'French knot', '¾']) {
      expect(() => readThreads(`Symbol,Code,Stitch\nx,T11,Full\n,T11,${stitch}\n`)).toThrow(
        'Line 3 of the thread list, T11, is',
      );
    }
    // Whatever is no whole stitch is refused, in any language and under any heading.
    for (const stitch of ['Rückstich', 'point arrière', 'пол-креста', '回针', 'ścieg za igłą', '½ Kreuz']) {
      expect(() => readThreads(`Symbol,Code,Stich\nx,T11,Kreuz\n,T12,${stitch}\n`)).toThrow(
        `T12, is “${stitch}”`,
      );
    }
    for (const whole of ['Full', 'X', 'Kreuzstich', 'punto croce', 'Крест', '十字', 'metallic', '']) {
      expect(readThreads(`Symbol,Code,Stitch\nx,T11,${whole}\n`)).toHaveLength(1);
    }
    expect(() => read(none, 'x\nx\n')).toThrow('only one column');
    expect(() => read(none, `${new Array(4002).fill('x').join(',')}\n`)).toThrow('at most 1,000,000 squares');
  });

  it('names what is missing in its lists', () => {
    expect(() => readThreads('a,b\n1,2\n')).toThrow('a column “code” or “symbol”');
    expect(() => readThreads(' ')).toThrow('The thread list is empty.');
    expect(() => readRange('code,hex\nT11,black\n')).toThrow('Line 2 of the range, T11, has no colour.');
    expect(() => readRange('code,name\nT11,black\n')).toThrow('columns “code” and “hex”');
  });
});
