import type { Shape } from '../canvas/canvas';
import { type Drawing, type FontMeasure, type Mark, movedMarks } from '../print/drawing';
import { PAPERS, type PaperName } from '../print/paper';
import { type LabelFacts, LIST_COLUMNS, labelArt } from './art';
import { type LabelBox, type LabelFormat, type LabelSheet, labelBoxes, TEST_CROSS_MM } from './sheet';

const CUT = '#857a69';
const CUT_WIDTH = 0.1;
const TICK_MM = 2;

/**
 * Draws label sheets, page after page, with the printer's error taken off.
 * @param startAt first place of the first sheet that is still free, from 1
 */
export function labelPages(
  format: LabelFormat,
  sheet: LabelSheet,
  labels: readonly LabelFacts[],
  kit: { shape: Shape; title: string },
  fonts: FontMeasure,
  startAt = 1,
): Drawing[] {
  const { widthMm, heightMm } = PAPERS[sheet.paper];
  const boxes = labelBoxes(sheet, labels.length, startAt);
  const pages: Drawing[] = Array.from({ length: (boxes.at(-1)?.page ?? 0) + 1 }, () => ({
    widthMm,
    heightMm,
    marks: [],
  }));
  boxes.forEach((box, i) => {
    const { marks } = pages[box.page]!;
    marks.push(...movedMarks(labelArt(format, labels[i]!, box, kit.shape, fonts), box.xMm, box.yMm));
    if (sheet.cutMarks) marks.push(...cutMarks(format, sheet, box));
  });
  if (format === 'list') for (const page of pages) page.marks.push(...listHead(sheet, kit.title));
  return pages.map((page) => ({
    ...page,
    marks: movedMarks(page.marks, -sheet.printerOffXMm, -sheet.printerOffYMm),
  }));
}

/** Lines to cut along: the circle of a dot, ticks in the gaps, or whole edges where labels share them. */
function cutMarks(format: LabelFormat, sheet: LabelSheet, box: LabelBox): Mark[] {
  const { xMm: x, yMm: y, widthMm, heightMm } = box;
  if (format === 'dots') {
    const radius = Math.min(widthMm, heightMm) / 2;
    return [{ kind: 'circle', x: x + radius, y: y + radius, radius, stroke: CUT }];
  }
  const line = (x1: number, y1: number, x2: number, y2: number): Mark => ({
    kind: 'line',
    x1,
    y1,
    x2,
    y2,
    stroke: CUT,
    width: CUT_WIDTH,
  });
  if (sheet.gapXMm === 0 || sheet.gapYMm === 0) {
    return [
      line(x, y, x + widthMm, y),
      line(x, y + heightMm, x + widthMm, y + heightMm),
      line(x, y, x, y + heightMm),
      line(x + widthMm, y, x + widthMm, y + heightMm),
    ];
  }
  const ticks: Mark[] = [];
  for (const [cx, outX] of [
    [x, -1],
    [x + widthMm, 1],
  ] as const) {
    for (const [cy, outY] of [
      [y, -1],
      [y + heightMm, 1],
    ] as const) {
      ticks.push(line(cx, cy, cx + (outX * Math.min(TICK_MM, sheet.gapXMm)) / 2, cy));
      ticks.push(line(cx, cy, cx, cy + (outY * Math.min(TICK_MM, sheet.gapYMm)) / 2));
    }
  }
  return ticks;
}

function listHead(sheet: LabelSheet, title: string): Mark[] {
  const text = (words: string, x: number, y: number, size: number): Mark => ({
    kind: 'text',
    x: sheet.marginLeftMm + x,
    y: sheet.marginTopMm + y,
    text: words,
    font: 'words',
    size,
    fill: '#17130f',
    anchor: 'start',
  });
  return [
    text(title, 0, -6.4, 4.6),
    ...LIST_COLUMNS.map(({ name, at }) => text(name, at * sheet.labelWidthMm, -1.6, 2.8)),
  ];
}

/** The test page of a printer: a cross at 20 mm from both edges, and bars of 100 mm. */
export function testPage(paper: PaperName): Drawing {
  const { widthMm, heightMm } = PAPERS[paper];
  const at = TEST_CROSS_MM;
  const line = (x1: number, y1: number, x2: number, y2: number): Mark => ({
    kind: 'line',
    x1,
    y1,
    x2,
    y2,
    stroke: '#000000',
    width: 0.2,
  });
  const words = (text: string, y: number): Mark => ({
    kind: 'text',
    x: at + 8,
    y,
    text,
    font: 'words',
    size: 4,
    fill: '#17130f',
    anchor: 'start',
  });
  const bar = Math.min(100, Math.floor((widthMm - at - 10) / 10) * 10);
  return {
    widthMm,
    heightMm,
    marks: [
      line(at - 8, at, at + 8, at),
      line(at, at - 8, at, at + 8),
      words('Measure from the paper’s left edge to the upright line of the cross,', at + 16),
      words('and from the upper edge to the level line. Both should be 20 mm.', at + 22),
      line(at, at + 36, at + bar, at + 36),
      ...Array.from({ length: bar / 10 + 1 }, (_, i) => line(at + i * 10, at + 34, at + i * 10, at + 38)),
      words(`This bar is ${bar} mm long. If yours is not, print at 100 %, not “fit to page”.`, at + 45),
    ],
  };
}
