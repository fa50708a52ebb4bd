import { describe, expect, it } from 'vitest';
import { type Mark, movedMarks } from '../../../src/core/print/drawing';
import {
  headed,
  inLines,
  linePages,
  MARGIN_MM,
  numbered,
  PALE,
  rowMarks,
  shortened,
} from '../../../src/core/print/page';

const HEAD = { title: 'Harbour at Dusk', date: '1 June 2026', paper: 'a4' } as const;
const words = (marks: readonly Mark[]) =>
  marks.flatMap((mark) => (mark.kind === 'text' ? [mark] : [])).sort((a, b) => a.y - b.y);

describe('pages of lines', () => {
  const lines = Array.from({ length: 100 }, (_, i) => `line ${i + 1}`);
  const printed = () => numbered(linePages(HEAD, 'What lacks', lines));

  it('carry every line once, in order, below their head and above their number', () => {
    const pages = printed();
    expect(pages.length).toBeGreaterThan(1);
    const told: string[] = [];
    for (const [i, page] of pages.entries()) {
      expect([page.widthMm, page.heightMm]).toEqual([210, 297]);
      const [what, where, ...rest] = words(page.marks);
      expect(what).toMatchObject({
        text: 'What lacks',
        size: 6,
        font: 'words',
        anchor: 'start',
        x: MARGIN_MM,
      });
      expect(where).toMatchObject({ text: 'Harbour at Dusk, 1 June 2026', fill: PALE });
      const foot = rest.pop()!;
      expect(foot).toMatchObject({
        text: `${i + 1} of ${pages.length}`,
        x: 105,
        anchor: 'middle',
        fill: PALE,
      });
      expect(foot.y).toBe(289);
      // No two lines on each other, none over the head, none at the foot.
      let above = where!.y + 4;
      for (const each of rest) {
        expect(each.x).toBe(MARGIN_MM);
        expect(each.y - above).toBeGreaterThan(each.size);
        above = each.y;
      }
      expect(above).toBeLessThan(foot.y - 5);
      told.push(...rest.map(({ text }) => text));
    }
    expect(told).toEqual(lines);
  });

  it('are full before the next begins, and none is empty', () => {
    const pages = printed();
    const [first] = pages;
    const perPage = first!.marks.length - 3;
    // 297 mm less head and foot in lines of 5.6 mm: some forty.
    expect(perPage).toBeGreaterThan(38);
    expect(linePages(HEAD, 'What lacks', lines.slice(0, perPage))).toHaveLength(1);
    expect(linePages(HEAD, 'What lacks', lines.slice(0, perPage + 1))).toHaveLength(2);
    expect(linePages(HEAD, 'What lacks', [])).toEqual([]);
    // An index card has room for a few lines too.
    const card = linePages({ ...HEAD, paper: 'card' }, 'What lacks', lines);
    expect(card.every(({ marks }) => marks.length > 2)).toBe(true);
    expect(card.length).toBeGreaterThan(pages.length);
  });

  it('go on below where they are longer than the paper is wide, and stand in there', () => {
    const long = `    Row 12, ${Array.from({ length: 60 }, (_, i) => `single ${i}`).join(', ')}`;
    const [page] = linePages(HEAD, 'Bar by bar', [long, 'Row 13, 4']);
    const [, , ...told] = words(page!.marks).map(({ text }) => text);
    expect(told.length).toBeGreaterThan(5);
    expect(told.at(-1)).toBe('Row 13, 4');
    const parts = told.slice(0, -1);
    expect(parts.map((each) => each.trim()).join(' ')).toBe(long.trim());
    expect(parts[0]).toMatch(/^ {4}Row 12/);
    for (const part of parts.slice(1)) expect(part).toMatch(/^ {8}\S/);
    // 182 mm between the margins, and letters of 3.6 mm, most of them half as wide.
    for (const part of parts) expect(part.length).toBeLessThanOrEqual(182 / (3.6 * 0.5));
  });

  it('have half as many letters where those are as wide as they are high', () => {
    for (const [letter, most] of [
      ['漢', 51],
      ['か', 51],
      ['a', 91],
    ] as const) {
      const [first] = inLines(HEAD, letter.repeat(200), 3.6);
      expect(first!.length).toBeLessThanOrEqual(most);
      expect(first!.length).toBeGreaterThan(most - 8);
    }
  });

  it('begin at the margin', () => {
    const ys = headed(HEAD, 'What lacks').marks.map((mark) => (mark.kind === 'text' ? mark.y : 0));
    expect(ys[0]).toBeGreaterThan(MARGIN_MM);
    expect(ys[1]).toBeGreaterThan(ys[0]! + 3.6);
  });

  it('end within the margin whatever the title, and say all of it', () => {
    const sizes = ['Harbour', 'M'.repeat(80), '漢'.repeat(80)].map((title) => {
      const [, where] = words(headed({ ...HEAD, title }, 'What lacks').marks);
      expect(where!.text).toBe(`${title}, 1 June 2026`);
      // Letters take half of their size at least, these signs all of it.
      expect(where!.size * (title.startsWith('漢') ? 80 : 40)).toBeLessThanOrEqual(182);
      return where!.size;
    });
    expect(sizes[0]).toBe(3.6);
    expect(sizes[1]).toBeLessThan(3.6);
    expect(sizes[2]).toBeLessThan(sizes[1]!);
  });
});

describe('a row of a list', () => {
  const SHORT = 'B5200';
  it('has its code on its line, and around it in two lines where it is long', () => {
    expect(words(rowMarks(30, 100, SHORT, 26, { font: 'codes' }))).toMatchObject([
      { text: SHORT, x: 30, y: 100, size: 3.6 },
    ]);
    // A little smaller before a letter goes down by itself.
    const [one, ...more] = words(rowMarks(30, 100, 'LONGCODE-123456', 26, { font: 'codes' }));
    expect(more).toEqual([]);
    expect(one!.size * 15 * 0.6).toBeLessThanOrEqual(26.001);
    expect(one!.size).toBeGreaterThan(2.8);
    for (const code of ['VERY-LONG-CODE-1234-5678', '漢'.repeat(24)]) {
      const marks = words(rowMarks(30, 100, code, 26, { font: 'codes' }));
      expect(marks.map(({ text }) => text).join('')).toBe(code);
      expect(marks.length).toBeGreaterThan(1);
      for (const [i, { text, x, y, size, font }] of marks.entries()) {
        expect([x, font]).toEqual([30, 'codes']);
        expect(size * text.length * (code.startsWith('漢') ? 1 : 0.6)).toBeLessThanOrEqual(26);
        // Between the lines above and below the row, which are 7.4 mm apart, and none on another.
        expect(y - size).toBeGreaterThan(100 - 5.4);
        expect(y).toBeLessThan(100 + 2);
        if (i > 0) expect(y - marks[i - 1]!.y).toBeGreaterThan(size);
      }
    }
  });

  it('has its note in two lines between words, in letters as large as they can be', () => {
    const note = '12,345  open bag 3, 12,345 drills short';
    const marks = words(rowMarks(140, 100, note, 42, { size: 3.1 }));
    expect(marks.map(({ text }) => text).join(' ')).toBe(note);
    expect(marks).toHaveLength(2);
    expect(words(rowMarks(140, 100, 'open bag 3', 42, { size: 3.1 }))).toMatchObject([{ size: 3.1, y: 100 }]);
  });

  it('ends a name that has no room in “…”', () => {
    expect(shortened('Beak', 3.6, 40)).toBe('Beak');
    const long = shortened('Old rose of the northern garden wall', 3.6, 40);
    expect(long).toMatch(/^Old rose of the.*\S…$/);
    expect(long.length * 3.6 * 0.5).toBeLessThanOrEqual(40);
    expect(shortened('漢'.repeat(40), 3.6, 40).length).toBeLessThanOrEqual(11);
  });
});

it('marks are moved with all their ends', () => {
  const line: Mark = { kind: 'line', x1: 1, y1: 2, x2: 3, y2: 5, stroke: '#000000', width: 0.1 };
  const rect: Mark = { kind: 'rect', x: 1, y: 2, width: 3, height: 4 };
  expect(movedMarks([line, rect], 10, 20)).toEqual([
    { ...line, x1: 11, y1: 22, x2: 13, y2: 25 },
    { ...rect, x: 11, y: 22 },
  ]);
});
