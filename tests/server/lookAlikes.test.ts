import { describe, expect, it } from 'vitest';
import { unprintable } from '../../src/server/print/outlines';
import { lookAlikes } from '../../src/server/symbols/lookAlikes';
import { line } from '../core/samples';

/*
 * Pairs of the kinds that are mixed up at the table (common practice, no source): mirror images, half turns, filled
 * against outline, dashes and slashes, quarter turns, and what Unicode lists as confusable (UTS #39).
 */
const PLANTED: readonly string[] = [
  ...['()', '[]', '{}', '<>', '«»', '◀▶', '◁▷', '/\\', '←→', '↗↖', '↙↘', 'bd', 'pq', '⟨⟩', '≤≥', '⊂⊃', '∈∋'],
  ...[
    '69',
    'pd',
    'bq',
    'un',
    '∪∩',
    '∧∨',
    '▲▼',
    '△▽',
    '↑↓',
    'MW',
    'mw',
    '⊤⊥',
    '↗↙',
    '↖↘',
    '⊏⊐',
    'ZN',
    'zn',
    '⌈⌋',
  ],
  ...['●○', '■□', '▲△', '◆◇', '★☆', '▶▷', '▼▽', '◀◁', '♠♤', '♥♡', '♣♧', '♦♢', '⬢⬡', '⬟⬠'],
  ...['-–', '–—', '-/', '–/', '−/', '-−', '|/', '_-', '=≡', '~≈', '+×', '÷+'],
  ...[
    '0O',
    '1l',
    'Il',
    '1I',
    'Oo',
    'Cc',
    'Ss',
    'Vv',
    'Xx',
    'Zz',
    'Ww',
    'Uu',
    'Kκ',
    'Aα',
    'oο',
    'xх',
    'aа',
    'pр',
  ],
  ...['⊕⊗', 'QO'],
];
/** Signs that nobody takes for each other. */
const PLAIN = [
  'A',
  '●',
  '/',
  '★',
  '8',
  '=',
  'T',
  '▲',
  'S',
  '♥',
  'K',
  '□',
  '?',
  '%',
  '♣',
  'Y',
  '3',
  '≡',
  'J',
  '#',
];

const flagged = async (a: string, b: string) =>
  (await lookAlikes([line(1, { symbol: a, hex: '#406080' }), line(2, { symbol: b, hex: '#486488' })]))
    .length > 0;

describe('symbols that are mixed up', () => {
  const pairs = PLANTED.map((pair) => [...pair] as [string, string]);

  it('are named, nine of ten at least', async () => {
    const lost = new Set(await unprintable(pairs.flat()));
    const drawable = pairs.filter((pair) => !pair.some((symbol) => lost.has(symbol)));
    expect(drawable.length).toBeGreaterThanOrEqual(75);
    const missed: string[] = [];
    for (const [a, b] of drawable) if (!(await flagged(a, b))) missed.push(a + b);
    expect(missed.length / drawable.length).toBeLessThanOrEqual(0.1);
  });

  it('are told from plainly different ones, which are named one in twenty at most', async () => {
    const legend = PLAIN.map((symbol, i) => line(i + 1, { symbol, hex: '#406080' }));
    const named = await lookAlikes(legend);
    const all = (PLAIN.length * (PLAIN.length - 1)) / 2;
    expect(named.length / all).toBeLessThanOrEqual(0.05);
  });

  it('are not compared where no font here draws them, and tints that are not known are said so', async () => {
    const unknown = [
      line(1, { symbol: '\u{13000}', hex: null }),
      line(2, { symbol: '\u{12000}', hex: null }),
    ];
    expect(await lookAlikes(unknown)).toEqual([]);
    const [pair] = await lookAlikes([line(1, { symbol: '(', hex: null }), line(2, { symbol: ')' })]);
    expect(pair!.difference).toBeNull();
  });
});
