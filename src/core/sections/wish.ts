import type { CoverKind, SheetWish } from './cover';
import { type FitWish, LIGHT_PADS, type LightPad } from './fit';
import type { Hand } from './hand';

/** How the user works on a canvas: what sections are judged by. */
export interface SectionWish {
  /** Of a sitting. */
  minutes: number;
  hand: Hand;
  cover: CoverKind;
  /** Sheets that replace the cover. */
  sheets: SheetWish;
  /** Sheets are cut from a roll of this width; null where they come as sheets. */
  rollMm: number | null;
  pad: LightPad | 'none' | 'own';
  ownPadMm: { longMm: number; shortMm: number };
  /** How far the arm reaches over the canvas; null where it does not matter. */
  reachMm: number | null;
  /** Height that a frame or an easel shows; null where none is used. */
  windowMm: number | null;
}

/** Sheets of release paper the size of A4, laid a finger's breadth over one another (common practice, no source). */
export const USUAL_WISH: SectionWish = {
  minutes: 45,
  hand: 'right',
  cover: 'cut',
  sheets: { widthMm: 210, heightMm: 297, overlapMm: 10 },
  rollMm: null,
  pad: 'none',
  ownPadMm: { longMm: 300, shortMm: 200 },
  reachMm: null,
  windowMm: null,
};

/** What sections must fit under a wish. */
export function fitOf({ pad, ownPadMm, reachMm, windowMm }: SectionWish): FitWish {
  return { pad: pad === 'none' ? null : pad === 'own' ? ownPadMm : LIGHT_PADS[pad], reachMm, windowMm };
}
