import type { Drawing, Mark } from './drawing';
import { PAPERS, type PaperName } from './paper';
import { wrapped } from './wrapped';

export const MARGIN_MM = 14;
export const INK = '#17130f';
export const PALE = '#857a69';
export const WARM = '#b98a2f';
export const LINE_MM = 5.6;
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

/** Signs as wide as they are high. */
const WIDE = /[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Hangul}\u3000-\u303f\uff00-\uff60]/u;
/** Of others, by the size of the font: a little more than most. */
const USUAL_WIDTH = 0.56;
/** What does not fit by itself stands in by so much. */
const INDENT = '    ';

/** A text in lines that fit between the margins, by the usual width of its letters, for no font is at hand here. */
export function inLines({ paper }: Pick<PaperHead, 'paper'>, words: string, size: number): string[] {
  const room = PAPERS[paper].widthMm - 2 * MARGIN_MM;
  const widthOf = (line: string) =>
    [...line].reduce((ems, sign) => ems + (WIDE.test(sign) ? 1 : USUAL_WIDTH), 0) * size;
  const before = /^ */.exec(words)![0];
  return wrapped(words.trim(), (line) => widthOf(`${before}${INDENT}${line}`) <= room).map(
    (line, i) => `${before}${i === 0 ? '' : INDENT}${line}`,
  );
}

/** Lines of text over as many pages as they take; long ones go on below. */
export function linePages(head: PaperHead, what: string, lines: readonly string[]): Drawing[] {
  const { heightMm } = PAPERS[head.paper];
  const first = MARGIN_MM + 20;
  const most = Math.max(1, Math.floor((heightMm - first - MARGIN_MM - 4) / LINE_MM));
  const pages: Drawing[] = [];
  const all = lines.flatMap((line) => inLines(head, line, TEXT_MM));
  for (let from = 0; from < all.length; from += most) {
    const page = headed(head, what);
    all.slice(from, from + most).forEach((words, i) => {
      page.marks.push(text(MARGIN_MM, first + i * LINE_MM, words, TEXT_MM));
    });
    pages.push(page);
  }
  return pages;
}
