import { type Canvas, panelSpans } from '../../canvas/canvas';
import { edgeMarks } from '../../cells/edgeMarks';
import type { Drawing, Mark } from '../../print/drawing';
import { PAPERS, type PaperName } from '../../print/paper';

/** A sticker is small enough for the margin of a canvas. */
const STICKER = { widthMm: 14, heightMm: 9, gapMm: 2, marginMm: 12 };

/**
 * Small stickers with the numbers of the edge marks, for both margins: columns twice (upper and lower edge), rows twice.
 * Panels count their own columns on, so that a number is the same everywhere.
 */
export function edgeStickers(
  canvas: Pick<Canvas, 'width' | 'height' | 'panels'>,
  every: number,
  paper: PaperName,
): Drawing[] {
  const { widthMm, heightMm } = PAPERS[paper];
  const { widthMm: w, heightMm: h, gapMm, marginMm } = STICKER;
  const columns = Math.floor((widthMm - 2 * marginMm + gapMm) / (w + gapMm));
  const rows = Math.floor((heightMm - 2 * marginMm + gapMm) / (h + gapMm));
  const across = panelSpans(canvas.width, canvas.panels).flatMap(({ start, end }) =>
    edgeMarks(end, every).filter((column) => column > start),
  );
  const down = edgeMarks(canvas.height, every);
  const texts = [...across, ...across].map((n) => `${n} ↓`).concat([...down, ...down].map((n) => `${n} →`));
  const pages = Math.max(1, Math.ceil(texts.length / (columns * rows)));
  return Array.from({ length: pages }, (_, page) => ({
    widthMm,
    heightMm,
    marks: texts.slice(page * columns * rows, (page + 1) * columns * rows).flatMap((text, i): Mark[] => {
      const x = marginMm + (i % columns) * (w + gapMm);
      const y = marginMm + Math.floor(i / columns) * (h + gapMm);
      const [number = '', arrow = ''] = text.split(' ');
      return [
        { kind: 'rect', x, y, width: w, height: h, stroke: '#857a69' },
        {
          kind: 'text',
          x: x + w * 0.4,
          y: y + 6.2,
          text: number,
          font: 'codes',
          size: 4.6,
          fill: '#17130f',
          anchor: 'middle',
        },
        {
          kind: 'text',
          x: x + w * 0.84,
          y: y + 6.2,
          text: arrow,
          font: 'codes',
          size: 4,
          fill: '#17130f',
          anchor: 'middle',
        },
      ];
    }),
  }));
}
