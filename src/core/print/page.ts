import type { Drawing, DrawingFont, Mark } from './drawing';
import { PAPERS, type PaperName } from './paper';
import { wrapped } from './wrapped';

export const MARGIN_MM = 14;
export const INK = '#17130f';
export const PALE = '#857a69';
export const WARM = '#b98a2f';
export const LINE_MM = 5.6;
export const TEXT_MM = 3.6;
/** What would have no room otherwise. */
export const SMALL_MM = 2.8;
const SMALLEST_MM = 2;

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
  const of = `${title}, ${date}`;
  return {
    widthMm,
    heightMm,
    marks: [
      text(MARGIN_MM, MARGIN_MM + 5, what, 6),
      text(MARGIN_MM, MARGIN_MM + 11, of, sizeThatFits(of, TEXT_MM, widthMm - 2 * MARGIN_MM), { fill: PALE }),
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

/** Of codes, which are as wide as each other. */
const CODE_WIDTH = 0.6;

/** How wide a text comes, as a share of the size of its font, by the usual width of its letters: no font is at hand here. */
function usualWidth(words: string, font: DrawingFont = 'words'): number {
  const usual = font === 'codes' ? CODE_WIDTH : USUAL_WIDTH;
  return [...words].reduce((ems, sign) => ems + (WIDE.test(sign) ? 1 : usual), 0);
}

/** The size (mm) at which a line has room, at most the one that is wished. */
function sizeThatFits(words: string, size: number, room: number): number {
  return Math.min(size, room / Math.max(1, usualWidth(words)));
}

/** A text that has no room (mm) ends in “…”. */
export function shortened(words: string, size: number, room: number): string {
  if (usualWidth(words) * size <= room) return words;
  let kept = '';
  for (const sign of words) {
    if (usualWidth(`${kept}${sign}…`) * size > room) break;
    kept += sign;
  }
  return `${kept.trimEnd()}…`;
}

/** Words in a row of a list: on its line where they have room (mm), else smaller, and then in lines around it. */
export function rowMarks(
  x: number,
  y: number,
  words: string,
  room: number,
  { size = TEXT_MM, font = 'words' }: { size?: number; font?: DrawingFont } = {},
): Mark[] {
  const width = usualWidth(words, font);
  if (width * SMALL_MM <= room) return [text(x, y, words, Math.min(size, room / width), { font })];
  const inSize = (of: number) => wrapped(words, (line) => usualWidth(line, font) * of <= room);
  const small = inSize(SMALL_MM).length <= 2 ? SMALL_MM : SMALLEST_MM;
  const lines = inSize(small);
  const middle = (lines.length - 1) / 2;
  return lines.map((line, i) => text(x, y - 0.5 + (i - middle) * small * 1.1, line, small, { font }));
}

/** A text in lines that fit between the margins, by the usual width of its letters. */
export function inLines({ paper }: Pick<PaperHead, 'paper'>, words: string, size: number): string[] {
  const room = PAPERS[paper].widthMm - 2 * MARGIN_MM;
  const before = /^ */.exec(words)![0];
  return wrapped(words.trim(), (line) => usualWidth(`${before}${INDENT}${line}`) * size <= room).map(
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
