import { cellsToCm } from '../canvas/canvas';
import { type Bitmap, isLaid } from '../cells/bitmap';
import type { CellRect, Chart } from '../cells/chart';
import { isInside } from '../cells/rect';
import { largest } from '../words/numbers';
import type { WorkOrder } from './order';
import { fillOwner, ownersOf } from './owners';
import type { CutCanvas } from './plan';
import type { Section } from './section';

/**
 * What lies over the adhesive: the film, folded back as far as the section goes; the film, cut along the borders of the
 * sections; or sheets of release paper that replace it.
 */
export const COVERS = ['fold', 'cut', 'sheets'] as const;
export type CoverKind = (typeof COVERS)[number];

/** A sheet that covers a part of a canvas; its overlap lies on its neighbours. */
export interface CoverSheet {
  rect: CellRect;
  /** Its turn when the sheets are laid: the one that is needed first is laid last and lies on top. */
  laidAs: number;
  /** Number of the first section that needs it lifted; null for none. */
  firstFor: number | null;
}

/** How the cover is parted: each cell lies under one of its pieces, and a section opens some of them. */
export interface CoverPieces {
  count: number;
  pieceAt: (x: number, y: number) => number;
  /** Pieces that are open while a section is worked. */
  openFor: (section: Section) => number[];
}

/** @param sheets where the cover is made of sheets */
export function coverPieces(
  kind: CoverKind,
  canvas: CutCanvas,
  sections: readonly Section[],
  order: WorkOrder,
  sheets: readonly CellRect[],
): CoverPieces {
  if (kind === 'cut')
    return byOwner(
      canvas,
      sections.map(({ rects }) => rects),
      (section) => [section.number],
    );
  if (kind === 'sheets') {
    return byOwner(
      canvas,
      sheets.map((rect) => [rect]),
      (section) => touched(sheets, section).map((i) => i + 1),
    );
  }
  return foldedPieces(canvas, order);
}

/** Film that is folded back line by line, on each panel by itself. */
function foldedPieces({ width, height, panelRects }: CutCanvas, order: WorkOrder): CoverPieces {
  const upright = order.way === 'columns';
  const fromEnd = upright ? order.corner.endsWith('right') : order.corner.startsWith('bottom');
  const lines = upright ? width : height;
  const panelAt = (x: number, y: number) =>
    panelRects.length === 1
      ? 0
      : Math.max(
          0,
          panelRects.findIndex((panel) => isInside(panel, { x, y })),
        );
  return {
    count: panelRects.length * lines,
    pieceAt: (x, y) => panelAt(x, y) * lines + (upright ? x : y),
    openFor: (section) => {
      const at = panelAt(section.rects[0]!.x, section.rects[0]!.y);
      const panel = panelRects[at]!;
      const [start, end] = upright ? [panel.x, panel.x + panel.width] : [panel.y, panel.y + panel.height];
      const from = fromEnd ? (upright ? section.x : section.y) : start;
      const to = fromEnd ? end : upright ? section.x + section.width : section.y + section.height;
      return Array.from({ length: to - from }, (_, i) => at * lines + from + i);
    },
  };
}

function byOwner(
  { width, height }: CutCanvas,
  pieces: readonly (readonly CellRect[])[],
  openFor: CoverPieces['openFor'],
): CoverPieces {
  const owners = new Int32Array(width * height);
  pieces.forEach((rects, i) => {
    fillOwner(owners, width, rects, i + 1);
  });
  return { count: pieces.length + 1, pieceAt: (x, y) => owners[y * width + x]!, openFor };
}

function touched(sheets: readonly CellRect[], section: Section): number[] {
  return sheets.flatMap((sheet, i) =>
    section.rects.some(
      (rect) =>
        rect.x < sheet.x + sheet.width &&
        sheet.x < rect.x + rect.width &&
        rect.y < sheet.y + sheet.height &&
        sheet.y < rect.y + rect.height,
    )
      ? [i]
      : [],
  );
}

/** How much adhesive lies bare while each section is worked, in cm². */
export interface Exposure {
  bySection: Map<number, number>;
  worst: { section: number; cm2: number } | null;
}

/**
 * Walks through the work in its order: what is laid, or was laid with an earlier section, is bare no more.
 * @param chart null where every square wants a drill
 * @param visit sees each section with the bare squares of the pieces that are open for it, before it is laid
 */
export function exposureOf(
  canvas: CutCanvas & { pitchMm: number },
  chart: Chart | null,
  laid: Bitmap,
  sections: readonly Section[],
  cover: CoverPieces,
): Exposure {
  const bare = new Int32Array(cover.count);
  const wanted = (cell: number) => chart?.cells[cell] !== 0 && !isLaid(laid, cell);
  for (let y = 0; y < canvas.height; y++) {
    for (let x = 0; x < canvas.width; x++) if (wanted(y * canvas.width + x)) bare[cover.pieceAt(x, y)]!++;
  }
  const squareCm2 = cellsToCm(1, canvas.pitchMm) ** 2;
  const exposure: Exposure = { bySection: new Map(), worst: null };
  for (const section of [...sections].sort((a, b) => a.order - b.order)) {
    let open = 0;
    for (const piece of cover.openFor(section)) open += bare[piece]!;
    let own = 0;
    for (const rect of section.rects) {
      for (let y = rect.y; y < rect.y + rect.height; y++) {
        for (let x = rect.x; x < rect.x + rect.width; x++) {
          if (!wanted(y * canvas.width + x)) continue;
          own++;
          bare[cover.pieceAt(x, y)]!--;
        }
      }
    }
    // Nothing is opened for a section in which nothing is left.
    const cm2 = own === 0 ? 0 : open * squareCm2;
    exposure.bySection.set(section.number, cm2);
    if (cm2 > (exposure.worst?.cm2 ?? 0)) exposure.worst = { section: section.number, cm2 };
  }
  return exposure;
}

/** Sheets or strips that cover a canvas. Lengths in mm. */
export interface SheetWish {
  widthMm: number;
  heightMm: number;
  overlapMm: number;
}

/**
 * Lays sheets over each panel from its upper left corner, each over the edge of the one before it by the overlap.
 * @returns the part that each sheet alone covers first, in cells, with the turn in which it is laid
 */
export function coverSheets(
  canvas: CutCanvas & { pitchMm: number },
  sections: readonly Section[],
  { widthMm, heightMm, overlapMm }: SheetWish,
): CoverSheet[] {
  const across = Math.max(1, Math.floor((widthMm - overlapMm) / canvas.pitchMm));
  const down = Math.max(1, Math.floor((heightMm - overlapMm) / canvas.pitchMm));
  const rects = canvas.panelRects.flatMap((panel) => {
    const found: CellRect[] = [];
    for (let y = panel.y; y < panel.y + panel.height; y += down) {
      for (let x = panel.x; x < panel.x + panel.width; x += across) {
        found.push({
          x,
          y,
          width: Math.min(across, panel.x + panel.width - x),
          height: Math.min(down, panel.y + panel.height - y),
        });
      }
    }
    return found;
  });
  const inTurn = [...sections].sort((a, b) => a.order - b.order);
  const needed = rects.map(() => Infinity);
  inTurn.forEach((section, turn) => {
    for (const sheet of touched(rects, section)) needed[sheet] = Math.min(needed[sheet]!, turn);
  });
  // What is needed last is laid first.
  const turns = rects.map((_, i) => i).sort((a, b) => needed[b]! - needed[a]! || b - a);
  return rects.map((rect, i) => ({
    rect,
    laidAs: turns.indexOf(i) + 1,
    firstFor: Number.isFinite(needed[i]!) ? inTurn[needed[i]!]!.number : null,
  }));
}

/** A strip for each line of sheets from a roll: as long as the panel is wide, with a finger's breadth over at both ends. */
const STRIP_OVER_MM = 10;

/** Sizes of strips that are cut from a roll, so that each goes right across a panel. @param rollMm width of the roll */
export function stripsFromRoll(
  canvas: CutCanvas & { pitchMm: number },
  rollMm: number,
  overlapMm: number,
): { sheet: SheetWish; strips: number; lengthMm: number; totalMm: number } {
  const widest = largest(canvas.panelRects.map(({ width }) => width)) * canvas.pitchMm;
  const lengthMm = Math.ceil(widest + 2 * STRIP_OVER_MM);
  const usable = Math.max(1, rollMm - overlapMm);
  const strips = canvas.panelRects.reduce(
    (sum, { height }) => sum + Math.ceil((height * canvas.pitchMm) / usable - 1e-9),
    0,
  );
  return {
    sheet: { widthMm: widest + overlapMm, heightMm: rollMm, overlapMm },
    strips,
    lengthMm,
    totalMm: strips * lengthMm,
  };
}

/** A straight cut through the film, or a line of tape. Cells from the left and upper edge. */
export interface CutLine {
  /** Whether it goes from top to bottom. */
  upright: boolean;
  /** Columns (or rows) before it. */
  at: number;
  from: number;
  to: number;
}

/** Borders between sections, joined where they go straight on, the longest first. */
export function cutLines(canvas: CutCanvas, sections: readonly Section[]): CutLine[] {
  const { width, height } = canvas;
  const owners = ownersOf(canvas, sections);
  const panelEdges = (upright: boolean) => new Set(canvas.panelRects.map(({ x, y }) => (upright ? x : y)));
  const lines: CutLine[] = [];
  const scan = (
    upright: boolean,
    places: number,
    length: number,
    differ: (at: number, i: number) => boolean,
  ) => {
    const edges = panelEdges(upright);
    for (let at = 1; at < places; at++) {
      // Panels are parted already.
      if (edges.has(at)) continue;
      for (let i = 0; i < length; ) {
        if (!differ(at, i)) {
          i++;
          continue;
        }
        const from = i;
        while (i < length && differ(at, i)) i++;
        lines.push({ upright, at, from, to: i });
      }
    }
  };
  const apart = (a: number, b: number) => owners[a] !== owners[b];
  scan(true, width, height, (at, i) => apart(i * width + at, i * width + at - 1));
  scan(false, height, width, (at, i) => apart(at * width + i, (at - 1) * width + i));
  return lines.sort((a, b) => b.to - b.from - (a.to - a.from) || a.at - b.at);
}
