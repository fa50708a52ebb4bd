import { describe, expect, it } from 'vitest';
import { emptyBitmap } from '../../../src/core/cells/bitmap';
import { makeChart } from '../../../src/core/cells/chart';
import type { CellPart } from '../../../src/core/cells/rect';
import { USUAL_SECONDS } from '../../../src/core/pace/timeModel';
import { readOut } from '../../../src/core/placing/inWords';
import { placingSheet } from '../../../src/core/placing/paper';
import { placementRect } from '../../../src/core/placing/placement';
import { PlacingPlanner } from '../../../src/core/placing/plan';
import { USUAL_PLACING } from '../../../src/core/placing/wish';
import type { Mark } from '../../../src/core/print/drawing';
import { PAPERS, type PaperName } from '../../../src/core/print/paper';
import { line } from '../samples';

const legend = [line(1, { hex: '#101010' }), line(2, { hex: '#f8f8f8' }), line(3, { hex: null })];

/** The sheet of a part of a made-up canvas of 200 × 200 squares. */
function sheetOf(section: CellPart, paper: PaperName = 'a4') {
  const cells = Uint16Array.from({ length: 40_000 }, (_, i) => (((i % 200) >> 2) + Math.floor(i / 400)) % 3);
  const chart = makeChart(
    200,
    200,
    cells.map((line) => line + 1),
  );
  const plan = new PlacingPlanner().plan(
    {
      chart,
      laid: emptyBitmap(cells.length),
      legend,
      parts: [section],
      tips: [1, 3],
      seconds: USUAL_SECONDS,
      hand: 'right',
    },
    USUAL_PLACING,
  );
  const pages = placingSheet({ title: 'Kit', date: 'today', paper }, 'Section 1', section, plan, legend);
  return { plan, pages, marks: pages[0]!.marks };
}
const rectsOf = (marks: readonly Mark[]) => marks.filter((mark) => mark.kind === 'rect');
const textsOf = (marks: readonly Mark[]) => marks.filter((mark) => mark.kind === 'text');

describe('the plan of a section on paper', () => {
  it.each<[string, CellPart, PaperName]>([
    ['wide', { x: 30, y: 20, width: 90, height: 12 }, 'a4'],
    ['tall', { x: 3, y: 20, width: 12, height: 120 }, 'letter'],
    ['small', { x: 0, y: 0, width: 8, height: 6 }, 'a4'],
  ])(
    'lies in the middle, below the words and inside the margins, whatever its form: %s',
    (_, section, paper) => {
      const { plan, marks } = sheetOf(section, paper);
      const rects = rectsOf(marks);
      expect(rects).toHaveLength(plan.placements.length);
      const left = Math.min(...rects.map(({ x }) => x));
      const right = Math.max(...rects.map(({ x, width }) => x + width));
      const top = Math.min(...rects.map(({ y }) => y));
      const bottom = Math.max(...rects.map(({ y, height }) => y + height));
      const { widthMm, heightMm } = PAPERS[paper];
      expect(left + right).toBeCloseTo(widthMm, 6);
      expect(left).toBeGreaterThan(13.9);
      const words = textsOf(marks).filter(({ text }) => /placement|with/.test(text));
      expect(words.length).toBe(2);
      expect(top).toBeGreaterThan(Math.max(...words.map(({ y }) => y)) + 2);
      // The number of the page stands below.
      expect(bottom).toBeLessThan(heightMm - 14 - 5);
      // As large as the paper lets it be, and no larger than a square needs.
      const mm = (right - left) / (section.width - 0.12);
      const full = right - left > widthMm - 28.5 || bottom > heightMm - 21;
      expect(mm).toBeLessThanOrEqual(6.01);
      expect(full || mm > 5.99).toBe(true);
    },
  );

  it('draws each bar where its squares are, a little apart from the next one, in a tint of its colour', () => {
    const section = { x: 30, y: 20, width: 20, height: 12 };
    const { plan, marks } = sheetOf(section);
    const rects = rectsOf(marks);
    const left = (210 - 6 * 20) / 2;
    const top = Math.min(...rects.map(({ y }) => y)) - 0.36;
    plan.placements.forEach((placement, i) => {
      const { x, y, width, height } = placementRect(placement);
      const drawn = rects[i]!;
      expect(drawn.x).toBeCloseTo(left + (x - 30) * 6 + 0.36, 6);
      expect(drawn.y).toBeCloseTo(top + (y - 20) * 6 + 0.36, 6);
      expect([drawn.width, drawn.height]).toEqual([
        expect.closeTo(width * 6 - 0.72, 6),
        expect.closeTo(height * 6 - 0.72, 6),
      ]);
      // Two fifths of the colour on white: 255 − 0.4 × (255 − 16) = 159.4 and 255 − 0.4 × 7 = 252.2.
      expect(drawn.fill).toBe([undefined, '#9f9f9f', '#fcfcfc', undefined][placement.line]);
    });
  });

  it('says in each bar how many drills it takes, in a single square its symbol, and nothing where nobody could read it', () => {
    const section = { x: 30, y: 20, width: 20, height: 12 };
    const { plan, marks } = sheetOf(section);
    const rects = rectsOf(marks);
    const inBars = textsOf(marks).filter(({ anchor, font }) => anchor === 'middle' && font === 'codes');
    expect(inBars).toHaveLength(rects.length);
    inBars.forEach((word, i) => {
      const { length, line: of } = plan.placements[i]!;
      const { x, y, width, height } = rects[i]!;
      const known = legend.find((each) => each.line === of)!;
      expect(word.text).toBe(length > 1 ? String(length) : known.symbol);
      expect(word.x).toBeCloseTo(x + width / 2, 6);
      // Capitals are about seven tenths of the size high: the word stands in the middle of its bar.
      expect(word.y - word.size * 0.34).toBeCloseTo(y + height / 2, 6);
      expect(word.size).toBe(3);
    });
    const far = sheetOf({ x: 0, y: 0, width: 120, height: 40 });
    expect(textsOf(far.marks).filter(({ anchor, font }) => anchor === 'middle' && font === 'codes')).toEqual(
      [],
    );
    expect(rectsOf(far.marks).length).toBe(far.plan.placements.length);
  });

  it('says how many placements each tip has, and lists colour by colour what lies in which row and column', () => {
    const section = { x: 30, y: 20, width: 20, height: 12 };
    const { plan, pages } = sheetOf(section);
    const with3 = plan.placements.filter(({ tip }) => tip === 3).length;
    const singles = plan.placements.filter(({ tip }) => tip === 1).length;
    const said = textsOf(pages[0]!.marks).map(({ text }) => text);
    expect(said).toContain(
      [with3 > 0 && `${with3} with the 3-tip`, singles > 0 && `${singles} with the single placer`]
        .filter(Boolean)
        .join(', '),
    );
    const list = pages.slice(1).flatMap(({ marks }) => textsOf(marks).map(({ text }) => text));
    for (const { line: of, drills, placements } of plan.colours[0]!) {
      expect(list).toContain(`40${of}: ${drills} drills, ${placements} placements`);
    }
    expect(list.some((text) => /^ {4}Column \d+, from row \d+: /.test(text))).toBe(true);
  });

  it('reads out every bar of a long row, on as many lines as the paper is too narrow for', () => {
    const { plan, pages } = sheetOf({ x: 0, y: 0, width: 200, height: 3 });
    const lines = pages.slice(1).flatMap(({ marks }) => textsOf(marks).map(({ text }) => text));
    // 182 mm between the margins, and letters of 3.6 mm, most of them half as wide.
    for (const text of lines) expect(text.length).toBeLessThanOrEqual(182 / (3.6 * 0.5));
    const printed = lines.join(' ').replace(/ +/g, ' ');
    const own = plan.placements.filter(({ line: of }) => of === 1);
    const { along, down } = readOut(own);
    expect(along.some(({ words }) => words.length > 182 / (3.6 * 0.5))).toBe(true);
    for (const { number, words } of along) expect(printed).toContain(`Row ${number}, ${words}`);
    for (const { number, words } of down) expect(printed).toContain(`Column ${number}, ${words}`);
  });
});
