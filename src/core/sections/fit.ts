import { cellsToCm } from '../canvas/canvas';
import type { CutCanvas } from './plan';
import type { Section } from './section';

/** Lit areas that light pads are sold in: the paper sizes of ISO 216, mm, the long side first. */
export const LIGHT_PADS = {
  A4: { longMm: 297, shortMm: 210 },
  A3: { longMm: 420, shortMm: 297 },
  A2: { longMm: 594, shortMm: 420 },
} as const;
export type LightPad = keyof typeof LIGHT_PADS;

/** What a section must fit; null for what does not matter. Lengths in mm. */
export interface FitWish {
  pad: { longMm: number; shortMm: number } | null;
  /** How far the arm reaches over the canvas, from its upper or its lower edge. */
  reachMm: number | null;
  /** Height that a frame or an easel shows at once, the rest being rolled. */
  windowMm: number | null;
}

/** What of the wish a section does not fit. */
export type Misfit = 'pad' | 'reach' | 'window';

/** @returns by number of the section; those that fit are left out */
export function misfits(
  canvas: CutCanvas & { pitchMm: number },
  sections: readonly Section[],
  { pad, reachMm, windowMm }: FitWish,
): Map<number, Misfit[]> {
  const found = new Map<number, Misfit[]>();
  const { pitchMm } = canvas;
  for (const section of sections) {
    const [width, height] = [section.width * pitchMm, section.height * pitchMm];
    const panel = canvas.panelRects.find(
      (each) =>
        section.x >= each.x &&
        section.x < each.x + each.width &&
        section.y >= each.y &&
        section.y < each.y + each.height,
    ) ?? { y: 0, height: canvas.height };
    const misses: Misfit[] = [];
    if (pad && (Math.max(width, height) > pad.longMm || Math.min(width, height) > pad.shortMm))
      misses.push('pad');
    const below = (section.y - panel.y + section.height) * pitchMm;
    const above = (panel.y + panel.height - section.y) * pitchMm;
    if (reachMm !== null && Math.min(below, above) > reachMm) misses.push('reach');
    if (windowMm !== null && height > windowMm) misses.push('window');
    if (misses.length > 0) found.set(section.number, misses);
  }
  return found;
}

/** Squares that the largest section may have, so that it fits a light pad lying across and a window; null for any. */
export function mostSquares(
  { pad, windowMm }: FitWish,
  pitchMm: number,
): { columns: number | null; rows: number | null } {
  const squares = (mm: number | undefined) =>
    mm === undefined ? null : Math.max(1, Math.floor(mm / pitchMm));
  const high = Math.min(pad?.shortMm ?? Infinity, windowMm ?? Infinity);
  return { columns: squares(pad?.longMm), rows: squares(high === Infinity ? undefined : high) };
}

/** Stops of a roll or an easel, from the top: the rows that it shows at each. */
export function rollStops(
  canvas: { height: number; pitchMm: number },
  windowMm: number,
): { from: number; to: number }[] {
  const rows = Math.max(1, Math.floor(windowMm / canvas.pitchMm));
  const stops = [];
  for (let from = 0; from < canvas.height; from += rows) {
    stops.push({ from, to: Math.min(canvas.height, from + rows) });
  }
  return stops;
}

/** @example misfitInWords(['pad'], section, 2.5) // 'Larger than the light pad: 32.5 × 25.0 cm.' */
export function misfitInWords(
  misses: readonly Misfit[],
  { width, height }: Section,
  pitchMm: number,
): string {
  const size = `${cellsToCm(width, pitchMm).toFixed(1)} × ${cellsToCm(height, pitchMm).toFixed(1)} cm`;
  const words = {
    pad: `larger than the light pad`,
    reach: 'beyond your reach',
    window: 'higher than the frame shows',
  };
  const text = misses.map((miss) => words[miss]).join(', ');
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}: ${size}.`;
}
