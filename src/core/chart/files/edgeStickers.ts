import type { CellRect } from '../../cells/chart';
import { edgeMarks } from '../../cells/edgeMarks';
import type { Drawing, Mark } from '../../print/drawing';
import { PAPERS, type PaperName } from '../../print/paper';

/** A sticker is small enough for the margin of a canvas. */
const STICKER = { widthMm: 14, heightMm: 9, gapMm: 2, marginMm: 12 };
const INK = '#17130f';
const PALE = '#5c5347';

/** What stands on a sticker: the number on the canvas, the panel's own where it differs, and an arrow towards the line. */
interface Sticker {
  number: number;
  own: number | null;
  arrow: '↓' | '↑' | '→' | '←';
}

/**
 * Small stickers with the numbers of the edge marks, for all four edges of every panel, each with an arrow that points
 * from its edge into the picture. Numbers are counted over the whole canvas, so that one is the same everywhere; a panel
 * that does not begin at the first column or row has its own number beside it.
 * @param panels in cells of the canvas
 */
export function edgeStickers(panels: readonly CellRect[], every: number, paper: PaperName): Drawing[] {
  const { widthMm, heightMm } = PAPERS[paper];
  const { widthMm: w, heightMm: h, gapMm, marginMm } = STICKER;
  const columns = Math.floor((widthMm - 2 * marginMm + gapMm) / (w + gapMm));
  const rows = Math.floor((heightMm - 2 * marginMm + gapMm) / (h + gapMm));
  const stickers = panels.flatMap((panel) => stickersOf(panel, every));
  const pages = Math.max(1, Math.ceil(stickers.length / (columns * rows)));
  return Array.from({ length: pages }, (_, page) => ({
    widthMm,
    heightMm,
    marks: stickers
      .slice(page * columns * rows, (page + 1) * columns * rows)
      .flatMap((sticker, i) =>
        drawn(
          sticker,
          marginMm + (i % columns) * (w + gapMm),
          marginMm + Math.floor(i / columns) * (h + gapMm),
        ),
      ),
  }));
}

function stickersOf({ x, y, width, height }: CellRect, every: number): Sticker[] {
  const along = (start: number, length: number, arrow: Sticker['arrow']): Sticker[] =>
    edgeMarks(start + length, every)
      .filter((number) => number > start)
      .map((number) => ({ number, own: start > 0 ? number - start : null, arrow }));
  return [
    ...along(x, width, '↓'),
    ...along(x, width, '↑'),
    ...along(y, height, '→'),
    ...along(y, height, '←'),
  ];
}

function drawn({ number, own, arrow }: Sticker, x: number, y: number): Mark[] {
  const { widthMm: w, heightMm: h } = STICKER;
  const text = (words: string, at: number, baseline: number, size: number, fill: string): Mark => ({
    kind: 'text',
    x: x + w * at,
    y: y + baseline,
    text: words,
    font: 'codes',
    size,
    fill,
    anchor: 'middle',
  });
  const middle = own === null ? 6.2 : 5.1;
  return [
    { kind: 'rect', x, y, width: w, height: h, stroke: '#857a69' },
    text(String(number), 0.4, middle, 4.6, INK),
    ...(own === null ? [] : [text(String(own), 0.4, 8.1, 2.4, PALE)]),
    text(arrow, 0.84, 6.2, 4, INK),
  ];
}
