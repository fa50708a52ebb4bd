import type { Canvas } from '../canvas/canvas';
import type { CellRect, Chart } from '../cells/chart';
import { overlapOf } from '../cells/rect';
import { Refusal } from '../refusal';
import { counted, many } from '../words/numbers';
import { type BlockSize, cutIntoBlocks } from './blockGrid';
import { inOrder, type WorkOrder } from './order';
import { fillOwner } from './owners';
import { makeSection, type Section } from './section';

/** More sections than anyone lays. */
export const MAX_SECTIONS = 20_000;
/** More rectangles than borders of a plan ever make. */
const MAX_RECTS = 200_000;
export const MAX_NAME = 60;
const TOO_MANY_CORNERS = 'These sections have too many corners. Cut them with straighter borders.';

/** How a canvas is cut, and in which order its sections are worked: all that is kept of it. */
export interface SectionPlan {
  /** A grid of blocks; null where the pieces are kept one by one. */
  block: BlockSize | null;
  /** The pieces, see {@link piecesToText}; null for a grid. */
  pieces: string | null;
  order: WorkOrder;
}

/** A piece without its number, which is its place in the list. */
export interface Piece {
  rects: readonly CellRect[];
  name: string | null;
}

/** What the sections of a canvas follow from; no section lies on two panels. */
export type CutCanvas = Pick<Canvas, 'width' | 'height' | 'panelRects'>;

/** The sections of a canvas, in the order of their numbers. */
export function sectionsOfPlan(canvas: CutCanvas, plan: SectionPlan): Section[] {
  const sections =
    plan.pieces === null
      ? cutIntoBlocks(canvas.panelRects, plan.block!)
      : piecesFromText(plan.pieces).map(({ rects, name }, i) => makeSection(i + 1, rects, name));
  return inOrder(sections, plan.order, canvas);
}

/**
 * Pieces as a short text: `x,y,width,height`, rectangles of a piece joined by `+`, a name after `=` with percent signs,
 * pieces parted by `;`.
 * @example piecesToText([{ rects: [{ x: 0, y: 0, width: 9, height: 5 }], name: 'Beak' }]) // '0,0,9,5=Beak'
 */
export function piecesToText(pieces: readonly Piece[]): string {
  return pieces
    .map(({ rects, name }) => {
      const text = rects.map(({ x, y, width, height }) => `${x},${y},${width},${height}`).join('+');
      return name === null ? text : `${text}=${encodeURIComponent(name)}`;
    })
    .join(';');
}

/** Inverse of {@link piecesToText}. @throws Refusal where the text is none of its kind */
export function piecesFromText(text: string): Piece[] {
  return text.split(';').map((piece) => {
    const [rects = '', name] = piece.split('=');
    return {
      rects: rects.split('+').map((rect) => {
        const numbers = /^(\d+),(\d+),(\d+),(\d+)$/.exec(rect)?.slice(1).map(Number);
        if (!numbers) throw new Refusal(`“${rect.slice(0, 40)}” is no rectangle of a section.`);
        const [x, y, width, height] = numbers as [number, number, number, number];
        return { x, y, width, height };
      }),
      name: name === undefined ? null : decodedName(name),
    };
  });
}

/**
 * Pieces as other programs send them: a list of `{ rects: [{ x, y, width, height }], name }`, the name left out or null.
 * @throws Refusal where it is none of its kind
 */
export function piecesFromJson(sections: unknown): Piece[] {
  if (!Array.isArray(sections)) throw new Refusal('“sections” must be a list.');
  let left = MAX_RECTS;
  return sections.map((section: unknown, i): Piece => {
    const { rects, name = null } = (section ?? {}) as { rects?: unknown; name?: unknown };
    const which = `Section ${many(i + 1)}`;
    if (!Array.isArray(rects)) throw new Refusal(`${which} needs its rectangles, as “rects”.`);
    if (name !== null && typeof name !== 'string')
      throw new Refusal(`The name of section ${many(i + 1)} must be text.`);
    left -= rects.length;
    if (left < 0) throw new Refusal(TOO_MANY_CORNERS);
    return { rects: rects.map((rect: unknown) => rectFromJson(rect, which)), name: name?.trim() || null };
  });
}

function rectFromJson(rect: unknown, which: string): CellRect {
  const { x, y, width, height } = (rect ?? {}) as Record<string, unknown>;
  const sides = [x, y, width, height];
  if (!sides.every((side) => Number.isInteger(side) && (side as number) >= 0)) {
    throw new Refusal(
      `${which} has a rectangle that is not of whole squares: it needs x, y, width and height.`,
    );
  }
  return { x, y, width, height } as CellRect;
}

/** Pieces cut where panels meet; a piece that lies on several becomes as many, in the order of the panels. */
export function piecesOnPanels(pieces: readonly Piece[], panelRects: readonly CellRect[]): Piece[] {
  return pieces.flatMap(({ rects, name }) =>
    panelRects.flatMap((panel) => {
      const own = rects.flatMap((rect) => overlapOf(rect, panel) ?? []);
      return own.length > 0 ? [{ rects: own, name }] : [];
    }),
  );
}

function decodedName(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    throw new Refusal('The name of a section cannot be read.');
  }
}

/**
 * What is wrong with pieces, as a sentence; null where they cover every square that wants a drill exactly once.
 * @param chart null where the canvas has none: then every square wants a drill
 */
export function faultInPieces(
  pieces: readonly Piece[],
  { width, height, panelRects }: CutCanvas,
  chart: Chart | null,
): string | null {
  if (pieces.length === 0) return 'A canvas has at least one section.';
  if (pieces.length > MAX_SECTIONS) {
    return `These are ${many(pieces.length)} sections; more than ${many(MAX_SECTIONS)} cannot be kept.`;
  }
  if (pieces.reduce((sum, { rects }) => sum + rects.length, 0) > MAX_RECTS) {
    return TOO_MANY_CORNERS;
  }
  const owners = new Int32Array(width * height);
  for (const [i, { rects, name }] of pieces.entries()) {
    const which = `Section ${many(i + 1)}`;
    if (name !== null && name.length > MAX_NAME)
      return `The name of section ${many(i + 1)} is longer than ${MAX_NAME} signs.`;
    if (rects.length === 0) return `${which} has no square.`;
    for (const rect of rects) {
      const { x, y, width: w, height: h } = rect;
      if (![x, y, w, h].every(Number.isInteger) || w < 1 || h < 1 || x < 0 || y < 0) {
        return `${which} is no part of the canvas.`;
      }
      if (x + w > width || y + h > height) {
        return `${which} goes beyond the canvas, which has ${counted(width, 'column')} and ${counted(height, 'row')}.`;
      }
      for (let row = y; row < y + h; row++) {
        for (let cell = row * width + x; cell < row * width + x + w; cell++) {
          if (owners[cell] !== 0) {
            return `Sections ${many(owners[cell]!)} and ${many(i + 1)} both have the square in column ${(cell % width) + 1}, row ${row + 1}.`;
          }
          owners[cell] = i + 1;
        }
      }
    }
  }
  const bare = owners.findIndex((owner, cell) => owner === 0 && (chart === null || chart.cells[cell] !== 0));
  if (bare >= 0) {
    return `No section has the square in column ${(bare % width) + 1}, row ${Math.floor(bare / width) + 1}.`;
  }
  return panelRects.length > 1 ? faultOverPanels(owners, width, height, panelRects) : null;
}

function faultOverPanels(
  owners: Int32Array,
  width: number,
  height: number,
  panelRects: readonly CellRect[],
): string | null {
  const panels = new Int32Array(width * height);
  panelRects.forEach((rect, i) => {
    fillOwner(panels, width, [rect], i + 1);
  });
  const panelOf = new Map<number, number>();
  for (let cell = 0; cell < owners.length; cell++) {
    const owner = owners[cell]!;
    if (owner === 0) continue;
    const known = panelOf.get(owner);
    if (known === undefined) panelOf.set(owner, panels[cell]!);
    else if (known !== panels[cell]) {
      return `Section ${many(owner)} lies on panels ${known} and ${panels[cell]}; cut it where the panels meet.`;
    }
  }
  return null;
}
