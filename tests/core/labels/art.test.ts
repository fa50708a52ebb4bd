import { describe, expect, it } from 'vitest';
import { type LabelFacts, labelArt } from '../../../src/core/labels/art';
import { qrPath } from '../../../src/core/labels/qr';
import type { LabelFormat } from '../../../src/core/labels/sheet';
import type { FontMeasure, Mark } from '../../../src/core/print/drawing';
import { line } from '../samples';

/** Every letter as wide as 0.6 of its size. */
const fonts: FontMeasure = {
  widthOf: (text, _font, size) => [...text].length * 0.6 * size,
  canPrint: (text) => !text.includes('語'),
};
/** From the middle of a line down to its baseline, as a share of the size (common practice, no source). */
const MIDDLE = 0.34;
const ADDRESS = 'HTTP://127.0.0.1:4470/Q/6F1D2A8E/17';
const MOSS = line(1, {
  code: '412',
  name: 'Moss',
  hex: '#4a7c3f',
  symbol: 'A',
  keyNumber: '9',
  neededDrills: 190,
});

function art(
  format: LabelFormat,
  width: number,
  height: number,
  more: Partial<LabelFacts> = {},
  shape: 'square' | 'round' = 'square',
): Mark[] {
  const facts = { line: MOSS, place: 'pot 17', warnsOf: null, address: null, leftover: null, ...more };
  return labelArt(format, facts, { widthMm: width, heightMm: height }, shape, fonts).map(rounded);
}
/** Lengths to a millionth of a millimetre: sums of shares are not exact. */
function rounded(mark: Mark): Mark {
  const entries = Object.entries(mark).map(([name, value]) => [
    name,
    typeof value === 'number' ? Number(value.toFixed(6)) : value,
  ]);
  return Object.fromEntries(entries) as Mark;
}
const texts = (marks: readonly Mark[]) => marks.filter((mark) => mark.kind === 'text');
const saying = (marks: readonly Mark[], text: string) => texts(marks).find((mark) => mark.text === text);

describe('the drill on a label', () => {
  // A row of 100 × 10 mm: the drill is 7 % of the width, in the middle of the height.
  it('has the shape of the canvas and the colour of its line', () => {
    expect(art('list', 100, 10)[0]).toMatchObject({
      kind: 'rect',
      x: 0,
      y: 1.5,
      width: 7,
      height: 7,
      fill: '#4a7c3f',
    });
    const [round] = art('list', 100, 10, {}, 'round');
    expect(round).toMatchObject({ kind: 'circle', x: 3.5, y: 5, radius: 3.5, fill: '#4a7c3f' });
    const [unknown] = art('list', 100, 10, { line: { ...MOSS, hex: null } });
    expect(unknown).toMatchObject({ kind: 'rect', fill: expect.stringMatching(/^#[0-9a-f]{6}$/) });
    expect(unknown).not.toMatchObject({ fill: '#4a7c3f' });
  });

  it('has a cut corner for a special finish, and none for a plain one', () => {
    const corners = (marks: readonly Mark[]) =>
      marks.filter((mark) => mark.kind === 'path' && mark.fill === '#ffffff');
    expect(corners(art('list', 100, 10))).toEqual([]);
    expect(corners(art('list', 100, 10, { line: { ...MOSS, finish: 'metallic' } }))).toEqual([
      {
        kind: 'path',
        x: expect.closeTo(4.69, 5),
        y: 1.5,
        scale: expect.closeTo(7 / 3, 5),
        d: 'M0 0L1 0L1 1Z',
        fill: '#ffffff',
      },
    ]);
  });

  it('bears its symbol, but in a bag of leftovers', () => {
    expect(saying(art('list', 100, 10), 'A')).toBeDefined();
    const leftovers = art('list', 100, 10, { leftover: 35 });
    expect(saying(leftovers, 'A')).toBeUndefined();
    expect(saying(leftovers, '35')).toBeDefined();
    expect(saying(leftovers, '9')).toBeUndefined();
  });
});

describe('a line of text', () => {
  /** The name in a row of 100 × 10 mm: 27 mm wide, 3.8 mm high at most. */
  const named = (name: string) =>
    texts(art('list', 100, 10, { line: { ...MOSS, name } })).find(({ x }) => x === 29);

  it('has its size where it fits, in the middle of its row', () => {
    expect(named('Moss')).toEqual({
      kind: 'text',
      x: 29,
      y: 6.292,
      text: 'Moss',
      font: 'words',
      size: 3.8,
      fill: expect.any(String),
      anchor: 'start',
    });
    expect(texts(art('list', 100, 10)).find(({ text }) => text === '412')).toMatchObject({
      font: 'codes',
      x: 8,
    });
  });

  it('is made smaller until it fits, then cut', () => {
    const smaller = named('m'.repeat(20))!;
    expect(smaller.size).toBeCloseTo(27 / (20 * 0.6), 5);
    expect(smaller.text).toBe('m'.repeat(20));
    // 5 pt is the smallest: 25 letters of 1.08 mm are 27 mm.
    const cut = named('m'.repeat(60))!;
    expect(cut.size).toBe(1.8);
    expect(cut.text).toBe(`${'m'.repeat(24)}…`);
    expect(named(`${'m'.repeat(23)} ${'m'.repeat(40)}`)!.text).toBe(`${'m'.repeat(23)}…`);
  });

  it('is left out whole where a letter of it cannot be printed, or it is empty', () => {
    expect(named('苔 語')).toBeUndefined();
    expect(named('')).toBeUndefined();
  });
});

describe('a round lid', () => {
  it('has drill and code in the middle, and its name where there is room', () => {
    const small = art('dots', 25, 25);
    // 0.46 of the diameter, a tenth below the rim.
    expect(small[0]).toMatchObject({ kind: 'rect', x: 6.75, y: 2.5, width: 11.5 });
    expect(saying(small, '412')).toMatchObject({
      x: 12.5,
      size: 4,
      y: 25 * 0.645 + MIDDLE * 4,
      anchor: 'middle',
      font: 'codes',
    });
    expect(saying(small, 'Moss')).toBeUndefined();
    const roomy = art('dots', 40, 50);
    expect(saying(roomy, '412')).toMatchObject({ x: 20, size: 5.2, y: 25 + MIDDLE * 5.2 });
    expect(saying(roomy, 'Moss')).toMatchObject({ x: 20, size: 3, y: 40 * 0.722 + MIDDLE * 3 });
    expect(saying(roomy, 'Pot 17 · key 9')).toBeDefined();
    expect(saying(roomy, '190 drills')).toBeDefined();
    const coated = art('dots', 40, 40, { line: { ...MOSS, finish: 'metallic' } });
    expect([saying(coated, 'metallic') !== undefined, saying(coated, 'Moss')]).toEqual([true, undefined]);
  });

  it('has the code to scan beside the drill, both smaller', () => {
    const marks = art('dots', 40, 40, { address: ADDRESS });
    const { size, d } = qrPath(ADDRESS);
    expect(marks[0]).toMatchObject({
      kind: 'rect',
      x: expect.closeTo(3.2, 5),
      y: expect.closeTo(5.2, 5),
      width: 16,
    });
    expect(marks.find((mark) => mark.kind === 'path')).toEqual({
      kind: 'path',
      x: expect.closeTo(20.8, 5),
      y: expect.closeTo(5.2, 5),
      scale: expect.closeTo(16 / size, 5),
      d,
      fill: '#000000',
    });
    expect(art('dots', 40, 40).some((mark) => mark.kind === 'path')).toBe(false);
  });

  it('warns of the colour that it is taken for, by a word and a bar', () => {
    const warned = art('dots', 40, 40, { warnsOf: { ...MOSS, code: '413' } });
    expect(saying(warned, 'not 413')).toMatchObject({ x: 20 });
    expect(saying(warned, '190 drills')).toBeUndefined();
    const bar = warned.find((mark) => mark.kind === 'line')!;
    expect(bar).toMatchObject({ y1: 37, y2: 37, stroke: '#000000', width: 0.9 });
    expect((bar.x1 + bar.x2) / 2).toBeCloseTo(20, 5);
    // Four fifths of the chord, less the rim, at 0.43 of the diameter from the middle.
    expect(bar.x2 - bar.x1).toBeCloseTo(0.8 * 2 * Math.sqrt(18 ** 2 - 17.2 ** 2), 5);
    expect(art('dots', 40, 40).some((mark) => mark.kind === 'line')).toBe(false);
  });
});

describe('a strip', () => {
  it('has the drill at the left, the code to scan at the right, and two columns of words where it is long', () => {
    const marks = art('strips', 100, 20, { address: ADDRESS });
    expect(marks[0]).toMatchObject({ x: 1.8, y: expect.closeTo(1.8, 5), width: expect.closeTo(16.4, 5) });
    expect(marks.find((mark) => mark.kind === 'path')).toMatchObject({
      x: expect.closeTo(81.8, 5),
      y: expect.closeTo(1.8, 5),
    });
    expect(saying(marks, '412')).toMatchObject({
      x: expect.closeTo(20, 5),
      size: 8,
      y: expect.closeTo(6.6 + MIDDLE * 8, 5),
    });
    expect(saying(marks, 'Moss')!.x).toBeCloseTo(20, 5);
    expect(saying(marks, 'Pot 17 · key 9')!.x).toBeCloseTo(52.16, 5);
    expect(saying(marks, '190 drills')!.x).toBeCloseTo(52.16, 5);
  });

  it('has one column where it is short', () => {
    const marks = art('strips', 50, 20);
    const at = ['412', 'Moss', 'Pot 17 · key 9', '190 drills'].map((text) => saying(marks, text)!);
    expect(new Set(at.map(({ x }) => x)).size).toBe(1);
    expect(at.map(({ y, size }) => Math.round((y - MIDDLE * size) * 100) / 100)).toEqual([
      4.2, 9, 12.9, 16.7,
    ]);
  });
});
