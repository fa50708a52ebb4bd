import type { CellRect } from '../cells/chart';
import { boxAround, overlapOf } from '../cells/rect';
import { Refusal } from '../refusal';
import { counted, many } from '../words/numbers';
import { ownersOf, rectsOfOwners } from './owners';
import type { CutCanvas, Piece } from './plan';
import { MAX_NAME } from './plan';
import { makeSection, type Section } from './section';

export type Side = 'left' | 'right' | 'top' | 'bottom';

/** Pieces as they are numbered. */
export function piecesOf(sections: readonly Section[]): Piece[] {
  return sections.map(({ rects, name }) => ({ rects, name }));
}

/** Joins sections into the one with the lowest number. @throws Refusal for fewer than two, or for sections on several panels */
export function joined(
  sections: readonly Section[],
  numbers: readonly number[],
  { panelRects }: CutCanvas,
): Piece[] {
  const members = sections.filter(({ number }) => numbers.includes(number));
  const [first] = members;
  if (!first || members.length < 2) throw new Refusal('Choose two sections or more to join.');
  const rects = members.flatMap((member) => member.rects);
  if (panelsUnder(rects, panelRects) > 1) {
    throw new Refusal('Sections on different panels cannot be joined.');
  }
  const name = members.find((member) => member.name !== null)?.name ?? null;
  return sections.flatMap((section) => {
    if (section === first) return [{ rects, name }];
    return members.includes(section) ? [] : [{ rects: section.rects, name: section.name }];
  });
}

function panelsUnder(rects: readonly CellRect[], panelRects: readonly CellRect[]): number {
  return panelRects.filter((panel) => rects.some((rect) => overlapOf(rect, panel))).length;
}

/**
 * Splits a section in two; the second part follows it.
 * @param across whether the cut goes from top to bottom @param at squares from its left (or upper) edge
 * @throws Refusal where nothing would be left on one side
 */
export function split(sections: readonly Section[], number: number, across: boolean, at: number): Piece[] {
  return sections.flatMap((section): Piece[] => {
    if (section.number !== number) return [{ rects: section.rects, name: section.name }];
    const box = boxAround(section.rects);
    const first: CellRect = across ? { ...box, width: at } : { ...box, height: at };
    const second: CellRect = across
      ? { ...box, x: box.x + at, width: box.width - at }
      : { ...box, y: box.y + at, height: box.height - at };
    const parts = [first, second].map((half) =>
      section.rects.flatMap((rect) =>
        half.width > 0 && half.height > 0 ? (overlapOf(rect, half) ?? []) : [],
      ),
    );
    if (parts.some((rects) => rects.length === 0)) {
      const most = (across ? box.width : box.height) - 1;
      throw new Refusal(
        most < 1
          ? 'This section is too small to be split that way.'
          : `Split it after ${most > 1 ? '1 to ' : ''}${counted(most, across ? 'column' : 'row')}.`,
      );
    }
    return [
      { rects: parts[0]!, name: section.name },
      { rects: parts[1]!, name: null },
    ];
  });
}

/**
 * Moves one side of a section: outwards it takes squares from its neighbours, inwards it gives its own to those beside it.
 * @param by squares, outwards above 0
 * @throws Refusal where the canvas or the panel ends, or the section would have no square left
 */
export function movedSide(
  sections: readonly Section[],
  number: number,
  side: Side,
  by: number,
  canvas: CutCanvas,
): Piece[] {
  const section = sections[number - 1];
  if (!section) throw new Refusal(`There is no section ${many(number)}.`);
  const { width, height, panelRects } = canvas;
  const box = boxAround(section.rects);
  const panel = panelRects.find((each) => overlapOf(each, box))!;
  const owners = ownersOf(canvas, sections);
  const upright = side === 'left' || side === 'right';
  const step = side === 'left' || side === 'top' ? -1 : 1;
  for (let moved = 0; moved < Math.abs(by); moved++) {
    const outwards = by > 0;
    const edge =
      side === 'left'
        ? box.x
        : side === 'right'
          ? box.x + box.width - 1
          : side === 'top'
            ? box.y
            : box.y + box.height - 1;
    // The line of squares that changes hands, and the line beyond it that it takes its new owner from.
    const line = outwards ? edge + step * (moved + 1) : edge - step * moved;
    const [low, high] = upright
      ? [panel.x, panel.x + panel.width - 1]
      : [panel.y, panel.y + panel.height - 1];
    if (line < low || line > high) throw new Refusal('The panel ends there.');
    if (!outwards && (line + step < low || line + step > high)) {
      throw new Refusal('No section lies beyond that side, so it cannot be moved inwards.');
    }
    const [from, to] = upright ? [box.y, box.y + box.height] : [box.x, box.x + box.width];
    for (let i = from; i < to; i++) {
      const cell = upright ? i * width + line : line * width + i;
      if (outwards) {
        if (owners[cell] !== 0) owners[cell] = number;
      } else if (owners[cell] === number) {
        const beyond = upright ? cell + step : cell + step * width;
        if (owners[beyond] !== 0 && owners[beyond] !== number) owners[cell] = owners[beyond]!;
      }
    }
  }
  const rects = rectsOfOwners(owners, { width, height }, sections.length);
  if (rects[number - 1]!.length === 0) throw new Refusal('Nothing would be left of the section.');
  // A neighbour that was taken whole is gone; the others move up.
  return rects.flatMap((own, i) => (own.length > 0 ? [{ rects: own, name: sections[i]!.name }] : []));
}

/** Gives a section another number; those between move by one. @throws Refusal where there is no such number */
export function renumbered(sections: readonly Section[], number: number, to: number): Piece[] {
  if (!Number.isInteger(to) || to < 1 || to > sections.length) {
    throw new Refusal(`Give a number from 1 to ${many(sections.length)}.`);
  }
  const pieces = piecesOf(sections);
  const [piece] = pieces.splice(number - 1, 1);
  pieces.splice(to - 1, 0, piece!);
  return pieces;
}

/** @throws Refusal where the name is too long */
export function renamed(sections: readonly Section[], number: number, name: string): Piece[] {
  const trimmed = name.trim();
  if (trimmed.length > MAX_NAME) throw new Refusal(`A name has at most ${MAX_NAME} signs.`);
  return piecesOf(sections).map((piece, i) =>
    i === number - 1 ? { ...piece, name: trimmed === '' ? null : trimmed } : piece,
  );
}

/** Numbers the sections anew in the order of the work. */
export function numberedInOrder(sections: readonly Section[]): Piece[] {
  return piecesOf([...sections].sort((a, b) => a.order - b.order));
}

/** A section as it would be, for looking at a piece that is not kept yet. */
export function asSections(pieces: readonly Piece[]): Section[] {
  return pieces.map(({ rects, name }, i) => makeSection(i + 1, rects, name));
}
