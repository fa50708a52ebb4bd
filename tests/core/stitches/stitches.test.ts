import { describe, expect, it } from 'vitest';
import { cellsToCm, MAX_SIDE_CELLS } from '../../../src/core/canvas/canvas';
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
    expect(() => read(none, 'x,x\nx\n')).toThrow('Line 2 of the grid has 1 cell, but the first has 2.');
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

describe('a legend made of threads', () => {
  const THREE = 'symbol,code,name,hex\no,T2,Bark,#17120c\nx,T1,Peat,#000000\nv,T9,Snow,#ffffff\n';
  const made = (grid: string, range: string | null, chosen = none) =>
    readStitches(grid, readThreads(THREE), range === null ? null : readRange(range), chosen, 3);

  it('numbers its colours by code, and takes the symbol of the thread with the most stitches', () => {
    const { legend } = made('o,x,x,x\nv,o,x,.\n', 'code,hex\nT1,#000000\nW,#ffffff\n').result!;
    expect(legend).toEqual([
      {
        ...{ line: 1, keyNumber: '1', symbol: 'x', code: 'T1', name: '', hex: '#000000' },
        ...{ finish: 'plain', neededDrills: 6, packets: 2 },
      },
      {
        ...{ line: 2, keyNumber: '2', symbol: 'v', code: 'W', name: '', hex: '#ffffff' },
        ...{ finish: 'plain', neededDrills: 1, packets: 1 },
      },
    ]);
  });

  it('is called as in the range where that has a name, no longer than 80 letters', () => {
    const long = 'n'.repeat(90);
    const { legend } = made('x,x\n', `code,name,hex\nT1,${long},#000000\n`).result!;
    expect(legend[0]!.name).toBe('n'.repeat(80));
    expect(made('x,x\n', null).result!.legend[0]).toMatchObject({ code: 'T1', name: 'Peat', hex: '#000000' });
  });

  it('leaves out threads that no stitch uses, also where they have no drill', () => {
    const { result, merges } = made('x,x\n', 'code,hex\nT1,#000000\n');
    expect(result!.legend.map(({ code }) => code)).toEqual(['T1']);
    expect(merges).toEqual([]);
  });

  it('says of a drill that was chosen how near it is, where that can be said', () => {
    const range = 'code,hex\nT1,#000000\nW,#ffffff\n';
    const { threads } = made('o,o\n', range, new Map([['T2', 'W']]));
    const white = threads[0]!.offers.find(({ code }) => code === 'W')!;
    expect(white.inWords).toBe('a very different colour');
    expect(threads[0]).toMatchObject({ how: 'chosen', drill: 'W', inWords: white.inWords });
    expect(made('o,o\n', range, new Map([['T2', 'elsewhere']])).threads[0]!.inWords).toBe('');
    expect(made('o,o\n', null).threads[0]!.inWords).toBe('');
  });

  it('offers the nearest first', () => {
    const [bark] = made('o,o\n', 'code,hex\nW,#ffffff\nG,#808080\nK,#000000\n').threads;
    expect(bark!.offers.map(({ code }) => code)).toEqual(['K', 'G', 'W']);
  });
});

describe('the grid of stitches', () => {
  const threads = readThreads('symbol,code\nx,Ab\no,C\nv,x\n');
  const cells = (grid: string) => [...readStitches(grid, threads, null, none, 200).result!.chart.cells];

  it('may be parted by commas, tabs or semicolons, and end in empty lines', () => {
    for (const mark of [',', '\t', ';']) expect(cells(`x${mark}o\no${mark}x\n\n\r\n`)).toEqual([1, 2, 2, 1]);
    expect(cells('\uFEFFx,o')).toEqual([1, 2]);
  });

  it('knows a thread by what most of its words are, symbols or codes, as they are written or not', () => {
    // “x” is the symbol of Ab and the code of another.
    expect(cells('x,x,o,v,Ab,c')).toEqual([1, 1, 2, 3, 1, 2]);
    expect(cells('x,Ab,ab,AB, o ,c')).toEqual([3, 1, 1, 1, 2, 2]);
  });

  it('leaves squares bare that say that there is no stitch, and tells of words that are none', () => {
    const reading = readStitches('x,0,.,·,,q\nx,q,z,x,x,x\n', threads, null, none, 200);
    expect(reading.unmatched).toEqual([
      { value: 'q', cells: 2 },
      { value: 'z', cells: 1 },
    ]);
    expect(reading.threads[0]!.stitches).toBe(5);
  });

  it('names the place of what it cannot take', () => {
    const of = (grid: string) => () => readStitches(grid, threads, null, none, 200);
    expect(of('x,x\nx,½\n')).toThrow('Column 2, row 2 of the grid holds “½”, a fractional stitch.');
    expect(of(`x,x\nx,${'a'.repeat(30)}/${'b'.repeat(30)}\n`)).toThrow(`“${'a'.repeat(20)}”`);
    expect(of('x,x\nx\n')).toThrow('Line 2 of the grid has 1 cell, but the first has 2.');
    expect(of('x\nx\n')).toThrow('only one column');
    expect(of('')).toThrow('only one column');
  });

  it('may be as large as a canvas is, and no larger', () => {
    const wide = (columns: number) => new Array(columns).fill('x').join();
    expect(readStitches(wide(MAX_SIDE_CELLS), threads, null, none, 200).width).toBe(MAX_SIDE_CELLS);
    expect(() => readStitches(wide(MAX_SIDE_CELLS + 1), threads, null, none, 200)).toThrow(/at most/);
    const high = (rows: number) => `${'x,x\n'.repeat(rows)}`;
    expect(readStitches(high(MAX_SIDE_CELLS), threads, null, none, 200).height).toBe(MAX_SIDE_CELLS);
    expect(() => readStitches(high(MAX_SIDE_CELLS + 1), threads, null, none, 200)).toThrow(/at most/);
  });
});

describe('lists of threads and of drills', () => {
  it('know whole stitches by their words, alone or with “stitch”', () => {
    const list = (kind: string) => () => readThreads(`code,stitch\nT1,${kind}\n`);
    for (const whole of ['cross', 'Full cross', 'cross-stitch', 'whole  stitch', 'クロス', 'metallic', ''])
      expect(list(whole)().map(({ code }) => code)).toEqual(['T1']);
    for (const part of ['back stitch', '½ cross', '1/2 cross', 'stitch', 'cross or knot'])
      expect(list(part)).toThrow(`is “${part}”`);
  });

  it('read a column of stitches by its heading or by what stands in it', () => {
    for (const heading of ['Stitch', ' stitches ', 'stitch type', 'Stitch Kind', 'use'])
      expect(() => readThreads(`code,${heading}\nT1,knot\n`)).toThrow('is “knot”');
    // A heading of its own: whole stitches in it tell.
    expect(() => readThreads('code,how\nT1,cross\nT2,knot\n')).toThrow('Line 3 of the thread list, T2');
    expect(readThreads('code,remark\nT1,knot\n')).toHaveLength(1);
    expect(readThreads('code,stitches wide\nT1,12\n')).toHaveLength(1);
  });

  it('pass over lines without a code, and take the symbol for one', () => {
    expect(readThreads('symbol,name\nx,Peat\n,Nothing\n')).toEqual([
      { symbol: 'x', code: 'x', name: 'Peat', hex: null },
    ]);
    expect(readThreads('code,symbol\nT1,\n')[0]!.symbol).toBeNull();
    expect(() => readThreads('code,name\n,Peat\n')).toThrow('names no thread');
    expect(() => readThreads('name,hex\nPeat,#000000\n')).toThrow('a column “code” or “symbol”');
    expect(readRange('code,hex\nT1,#000000\n,\n')).toEqual([{ code: 'T1', name: '', hex: '#000000' }]);
    expect(readRange('code,name,hex\nT1,Peat,#000000\n')[0]!.name).toBe('Peat');
    expect(() => readRange('code,hex\n,\n')).toThrow('The range of drills is empty.');
    expect(() => readRange(' ')).toThrow('The range of drills is empty.');
    expect(() => readRange('name,hex\nPeat,#000000\n')).toThrow('columns “code” and “hex”');
  });

  it('have an end', () => {
    const rows = (count: number) => Array.from({ length: count }, (_, i) => `T${i},#000000\n`).join('');
    expect(readThreads(`code,hex\n${rows(250)}`)).toHaveLength(250);
    expect(() => readThreads(`code,hex\n${rows(251)}`)).toThrow(
      'has 251 threads; a canvas can have at most 250',
    );
    expect(readRange(`code,hex\n${rows(3000)}`)).toHaveLength(3000);
    expect(() => readRange(`code,hex\n${rows(3001)}`)).toThrow('at most 3000 drills');
  });
});

describe('the words of a grid', () => {
  // Threads whose symbols are the codes of others.
  const TURNED = readThreads('symbol,code\n1,2\n2,3\n3,1\n');
  const turned = (grid: string, wanted: 'symbols' | 'codes' | null = null) =>
    readStitches(grid, TURNED, null, none, 200, wanted);
  const cellsOf = ({ threads, result }: ReturnType<typeof turned>) => [
    threads.map(({ stitches }) => stitches),
    result!.legend.map(({ code, neededDrills }) => [code, neededDrills]),
  ];

  it('are symbols or codes, and it is said where both would do', () => {
    const asSymbols = turned('1,1,2\n1,1,3\n');
    expect(asSymbols.words).toEqual({ kind: 'symbols', others: ['codes'] });
    expect(asSymbols.notices).toEqual([
      'The words of the grid were read as symbols.',
      '“1”, “2”, “3”: each the symbol of one thread and the code of another. Look which it is before you save.',
    ]);
    expect(cellsOf(asSymbols)).toEqual([
      [4, 1, 1],
      [
        ['1', 1],
        ['2', 4],
        ['3', 1],
      ],
    ]);
    expect(cellsOf(turned('1,1,2\n1,1,3\n', 'codes'))).toEqual([
      [1, 1, 4],
      [
        ['1', 4],
        ['2', 1],
        ['3', 1],
      ],
    ]);
    expect(turned('1,1,2\n1,1,3\n', 'codes').words).toEqual({ kind: 'codes', others: ['symbols'] });
    // What is not the one is read as the other, and named.
    const mixed = read(none, 'T11,x\nx,o\n');
    expect([mixed.unmatched, mixed.threads[0]!.stitches]).toEqual([[], 3]);
    expect(mixed.notices[1]).toBe('“T11”: no symbol, so read as a code.');
    expect(read().notices).toHaveLength(1);
    expect(read().words.others).toEqual([]);
  });

  it('that two threads share are left open, but for a thread that is listed twice', () => {
    const shared = readThreads('symbol,code\nx,T1\nx,T2\no,T3\n');
    expect(readStitches('x,o\no,x\n', shared, null, none, 200).unmatched).toEqual([{ value: 'x', cells: 2 }]);
    const twice = readThreads('symbol,code\nx,T1\nv,t1\no,T3\n');
    const byCode = readStitches('T1,T3\nt1,T3\n', twice, null, none, 200);
    expect([byCode.unmatched, byCode.threads.map(({ stitches }) => stitches)]).toEqual([[], [2, 0, 2]]);
    const bySymbol = readStitches('x,v\nv,o\n', twice, null, none, 200);
    expect(bySymbol.threads.map(({ stitches }) => stitches)).toEqual([1, 2, 1]);
  });

  it('name a thread without a symbol by its code, among symbols', () => {
    const threads = readThreads('symbol,code\nx,T1\n,T2\n');
    expect(readStitches('x,T2\nx,x\n', threads, null, none, 200).threads[1]!.stitches).toBe(1);
  });

  it('are not the numbers of columns and rows around them', () => {
    const numbers = ['', ...Array.from({ length: 8 }, (_, i) => i + 1)];
    const rows = Array.from({ length: 8 }, (_, y) => [y + 1, 1, 1, 1, 1, 2, 2, 3, 3]);
    const numbered = turned([numbers, ...rows].map((row) => row.join()).join('\n'));
    expect([numbered.width, numbered.height, numbered.threads.map(({ stitches }) => stitches)]).toEqual([
      8,
      8,
      [32, 16, 16],
    ]);
    expect(numbered.notices).toContainEqual(expect.stringContaining('were left out'));
    const ragged = [numbers, ...rows.slice(0, 7), [8, 1]].map((row) => row.join()).join('\n');
    expect(() => turned(ragged)).toThrow('Line 9 of the grid has 1 cell, but the first has 8.');
  });
});
