import type { Drawing, Mark } from './drawing';
import { PAPERS, type PaperName } from './paper';

export const MARGIN_MM = 14;
export const INK = '#17130f';
export const PALE = '#857a69';
export const WARM = '#b98a2f';
const LINE_MM = 5.6;
export const TEXT_MM = 3.6;

/** What every page says of the canvas. */
export interface PaperHead {
  title: string;
  date: string;
  paper: PaperName;
}

/** A line of words on a page, in dark ink from its left end where nothing else is said. */
export const text = (
  x: number,
  y: number,
  words: string,
  size: number,
  more: Partial<Extract<Mark, { kind: 'text' }>> = {},
): Mark => ({
  kind: 'text',
  x,
  y,
  text: words,
  font: 'words',
  size,
  fill: INK,
  anchor: 'start',
  ...more,
});

/** A page with its head; the number of the page is set when all are there. */
export function headed({ title, date, paper }: PaperHead, what: string): Drawing {
  const { widthMm, heightMm } = PAPERS[paper];
  return {
    widthMm,
    heightMm,
    marks: [
      text(MARGIN_MM, MARGIN_MM + 5, what, 6),
      text(MARGIN_MM, MARGIN_MM + 11, `${title}, ${date}`, TEXT_MM, { fill: PALE }),
    ],
  };
}

/** Page numbers at the foot. */
export function numbered(pages: readonly Drawing[]): Drawing[] {
  return pages.map((page, i) => ({
    ...page,
    marks: [
      ...page.marks,
      text(page.widthMm / 2, page.heightMm - 8, `${i + 1} of ${pages.length}`, 3.2, {
        anchor: 'middle',
        fill: PALE,
      }),
    ],
  }));
}

/** Lines of text over as many pages as they take. */
export function linePages(head: PaperHead, what: string, lines: readonly string[]): Drawing[] {
  const { heightMm } = PAPERS[head.paper];
  const first = MARGIN_MM + 20;
  const most = Math.max(1, Math.floor((heightMm - first - MARGIN_MM - 4) / LINE_MM));
  const pages: Drawing[] = [];
  for (let from = 0; from < lines.length; from += most) {
    const page = headed(head, what);
    lines.slice(from, from + most).forEach((words, i) => {
      page.marks.push(text(MARGIN_MM, first + i * LINE_MM, words, TEXT_MM));
    });
    pages.push(page);
  }
  return pages;
}
