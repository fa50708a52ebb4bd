import { type Canvas, cellsToCm, sizeInWords } from '../canvas/canvas';
import { type Drawing, type Mark, TEXT_MIDDLE } from '../print/drawing';
import {
  headed,
  INK,
  linePages,
  MARGIN_MM,
  numbered,
  PALE,
  type PaperHead,
  rowMarks,
  SMALL_MM,
  shortened,
  TEXT_MM,
  text,
  WARM,
} from '../print/page';
import { PAPERS } from '../print/paper';
import { many } from '../words/numbers';
import { type CoverSheet, cutLines, stripsFromRoll } from './cover';
import { cutLineRow, foldSteps, numbersInWords, sheetsInWords } from './coverInWords';
import type { JudgedSection } from './judge';
import type { WorkOrder } from './order';
import { outlineOf, roomiestRect } from './outline';
import { orderInWords, worstOf } from './planInWords';
import type { Section } from './section';
import type { SectionWish } from './wish';

/** Where a canvas lies on a page, and how many millimetres of paper a square takes. */
interface MapPlace {
  left: number;
  top: number;
  mm: number;
}

function placeOnPage(canvas: Canvas, { paper }: PaperHead, top: number): MapPlace {
  const { widthMm, heightMm } = PAPERS[paper];
  const mm = Math.min(
    (widthMm - 2 * MARGIN_MM) / canvas.width,
    (heightMm - top - MARGIN_MM - 6) / canvas.height,
    canvas.pitchMm,
  );
  return { left: (widthMm - mm * canvas.width) / 2, top, mm };
}

function mapMarks(canvas: Canvas, sections: readonly Section[], { left, top, mm }: MapPlace): Mark[] {
  const marks: Mark[] = [];
  for (const section of sections) {
    for (const { upright, at, from, to } of outlineOf(section)) {
      marks.push({
        kind: 'line',
        x1: left + (upright ? at : from) * mm,
        y1: top + (upright ? from : at) * mm,
        x2: left + (upright ? at : to) * mm,
        y2: top + (upright ? to : at) * mm,
        stroke: INK,
        width: 0.25,
      });
    }
    const spot = roomiestRect(section);
    const number = String(section.number);
    const size = Math.min(6, spot.height * mm * 0.5, (spot.width * mm * 1.3) / number.length);
    if (size < 1.4) continue;
    marks.push(
      text(
        left + (spot.x + spot.width / 2) * mm,
        top + (spot.y + spot.height / 2) * mm + size * TEXT_MIDDLE,
        number,
        size,
        {
          anchor: 'middle',
          font: 'codes',
        },
      ),
    );
  }
  for (const panel of canvas.panelRects) {
    marks.push({
      kind: 'rect',
      x: left + panel.x * mm,
      y: top + panel.y * mm,
      width: panel.width * mm,
      height: panel.height * mm,
      stroke: INK,
    });
  }
  return marks;
}

function orderMarks(sections: readonly Section[], { left, top, mm }: MapPlace): Mark[] {
  const way = [...sections]
    .sort((a, b) => a.order - b.order)
    .map((section) => {
      const { x, y, width, height } = roomiestRect(section);
      return [left + (x + width / 2) * mm, top + (y + height / 2) * mm] as const;
    });
  const lines = way.slice(1).map(([x2, y2], i): Mark => {
    const [x1, y1] = way[i]!;
    return { kind: 'line', x1, y1, x2, y2, stroke: WARM, width: 0.35 };
  });
  const [first] = way;
  return first ? [...lines, { kind: 'circle', x: first[0], y: first[1], radius: 1.2, fill: WARM }] : lines;
}

/** One page with all sections, their numbers, and the way of the work. */
export function sectionMap(
  head: PaperHead,
  canvas: Canvas,
  sections: readonly Section[],
  order: WorkOrder,
): Drawing[] {
  const page = headed(head, 'Sections');
  const place = placeOnPage(canvas, head, MARGIN_MM + 24);
  const scale = canvas.pitchMm / place.mm;
  page.marks.push(
    text(
      MARGIN_MM,
      MARGIN_MM + 18,
      `${many(sections.length)} sections of ${sizeInWords(canvas)}; ${orderInWords(order).toLowerCase()}, from the dot on; 1 : ${scale.toFixed(1)}`,
      TEXT_MM,
    ),
    ...orderMarks(sections, place),
    ...mapMarks(canvas, sections, place),
  );
  return numbered([page]);
}

/** How to cover the adhesive: a picture, then what to cut, fold or lay, line by line. */
export function coverPlan(
  head: PaperHead,
  canvas: Canvas,
  sections: readonly JudgedSection[],
  order: WorkOrder,
  wish: SectionWish,
  sheets: readonly CoverSheet[],
): Drawing[] {
  const pieces = sections.map(({ section }) => section);
  const page = headed(head, 'Cover plan');
  const place = placeOnPage(canvas, head, MARGIN_MM + 30);
  const worst = worstOf(sections);
  const { heading, lines, over } = coverLines(canvas, pieces, order, wish, sheets, place);
  page.marks.push(
    text(MARGIN_MM, MARGIN_MM + 18, heading, TEXT_MM),
    text(
      MARGIN_MM,
      MARGIN_MM + 24,
      worst
        ? `At most ${many(Math.round(worst.bareCm2))} cm² of adhesive lie bare at once, at section ${many(worst.section.number)}.`
        : 'Nothing is left to lay.',
      TEXT_MM,
    ),
    ...mapMarks(canvas, pieces, place),
    ...over,
  );
  const cautions = [
    'Never wax paper, foil or cling film. Try one corner first: parchment differs from country to country.',
    'Cut only just through the film, away from your hand. Mark the upper side of every loose sheet.',
  ];
  return numbered([page, ...linePages(head, 'Cover plan', [...lines, '', ...cautions])]);
}

function coverLines(
  canvas: Canvas,
  sections: readonly Section[],
  order: WorkOrder,
  wish: SectionWish,
  sheets: readonly CoverSheet[],
  { left, top, mm }: MapPlace,
): { heading: string; lines: string[]; over: Mark[] } {
  const line = (upright: boolean, at: number, from: number, to: number, width: number): Mark => ({
    kind: 'line',
    x1: left + (upright ? at : from) * mm,
    y1: top + (upright ? from : at) * mm,
    x2: left + (upright ? at : to) * mm,
    y2: top + (upright ? to : at) * mm,
    stroke: WARM,
    width,
  });
  if (wish.cover === 'fold') {
    const steps = foldSteps(canvas, sections, order);
    return {
      heading:
        'The film stays and is folded back, step by step; cover minders hold it at both ends of the fold.',
      lines: steps.map(
        ({ words, sections: numbers }, i) =>
          `${i + 1}. Fold it back ${words}, for ${numbers.length === 1 ? 'section' : 'sections'} ${numbersInWords(numbers)}`,
      ),
      over: steps.map(({ at, upright, from, to }) => line(upright, at, from, to, 0.6)),
    };
  }
  if (wish.cover === 'cut') {
    const cuts = cutLines(canvas, sections);
    return {
      heading: `The film is cut along ${many(cuts.length)} lines, the longest first; lay tape along them before.`,
      lines: cuts.map((cut, i) => {
        const row = cutLineRow(cut, canvas);
        return `${i + 1}. ${row.length} ${row.way}: ${row.fromNear}, ${row.fromFar}; begins ${row.begins}`;
      }),
      over: cuts.map(({ upright, at, from, to }) => line(upright, at, from, to, 0.6)),
    };
  }
  const laid = [...sheets].sort((a, b) => a.laidAs - b.laidAs);
  const strips = wish.rollMm === null ? null : stripsFromRoll(canvas, wish.rollMm, wish.sheets.overlapMm);
  const cm = (squares: number) => cellsToCm(squares, canvas.pitchMm).toFixed(1);
  return {
    heading: strips
      ? `${many(strips.strips)} strips of ${many(strips.lengthMm)} mm from the roll; lay them in the order of their numbers.`
      : `${sheetsInWords(sheets.length, wish.sheets)}; lay them in the order of their numbers.`,
    lines: laid.map(
      ({ rect, laidAs, firstFor }) =>
        `${laidAs}. ${cm(rect.x)} cm from the left, ${cm(rect.y)} cm from the top, ${cm(rect.width)} × ${cm(rect.height)} cm${firstFor === null ? '' : `; lifted for section ${many(firstFor)}`}`,
    ),
    over: laid.flatMap(({ rect, laidAs }): Mark[] => [
      line(true, rect.x, rect.y, rect.y + rect.height, 0.7),
      line(false, rect.y, rect.x, rect.x + rect.width, 0.7),
      text(
        left + (rect.x + rect.width) * mm - 1,
        top + (rect.y + rect.height) * mm - 1.2,
        `sheet ${laidAs}`,
        2.6,
        {
          fill: WARM,
          anchor: 'middle',
        },
      ),
    ]),
  };
}

/** A row of the pull list, as it is printed. */
export interface PullRow {
  place: string;
  code: string;
  symbol: string | null;
  name: string;
  toTip: number;
  after: number | null;
  note: string;
}

/** What to take out, with a box to tick. */
export function pullPages(head: PaperHead, what: string, rows: readonly PullRow[]): Drawing[] {
  const { widthMm, heightMm } = PAPERS[head.paper];
  const first = MARGIN_MM + 26;
  const rowMm = 7.4;
  const most = Math.max(1, Math.floor((heightMm - first - MARGIN_MM - 4) / rowMm));
  const columns = [0, 8, 30, 58, 70, widthMm - 2 * MARGIN_MM - 70, widthMm - 2 * MARGIN_MM - 42].map(
    (x) => x + MARGIN_MM,
  ) as [number, number, number, number, number, number, number];
  const nameRoom = columns[5] - columns[4] - 2;
  const pages: Drawing[] = [];
  for (let from = 0; from === 0 || from < rows.length; from += most) {
    const page = headed(head, what);
    const heads: [number, string][] = [
      [1, 'Place'],
      [2, 'Code'],
      [3, 'Sign'],
      [4, 'Name'],
      [5, 'Tip out'],
      [6, 'Then in the pot'],
    ];
    for (const [column, words] of heads) {
      page.marks.push(text(columns[column]!, first - 6, words, 3.1, { fill: PALE }));
    }
    rows.slice(from, from + most).forEach((row, i) => {
      const y = first + i * rowMm;
      const then = `${row.after === null ? '' : many(row.after)}${row.note === '' ? '' : `  ${row.note}`}`;
      page.marks.push(
        { kind: 'rect', x: columns[0], y: y - 3.4, width: 4, height: 4, stroke: INK },
        text(columns[1], y, row.place, TEXT_MM),
        ...rowMarks(columns[2], y, row.code, columns[3] - columns[2] - 2, { font: 'codes' }),
        text(columns[3], y, row.symbol ?? '', TEXT_MM, { font: 'codes' }),
        ...rowMarks(columns[4], y, shortened(row.name, SMALL_MM, 1.8 * nameRoom), nameRoom),
        text(columns[5], y, many(row.toTip), TEXT_MM, { font: 'codes' }),
        ...rowMarks(columns[6], y, then, widthMm - MARGIN_MM - columns[6], { size: 3.1 }),
        {
          kind: 'line',
          x1: MARGIN_MM,
          y1: y + 2,
          x2: widthMm - MARGIN_MM,
          y2: y + 2,
          stroke: PALE,
          width: 0.12,
        },
      );
    });
    pages.push(page);
  }
  return numbered(pages);
}
