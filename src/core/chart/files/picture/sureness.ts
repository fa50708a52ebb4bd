import type { Chart } from '../../../cells/chart';

/** A cell that was read with doubt. */
export interface DoubtfulCell {
  x: number;
  y: number;
  /** Its colour on the picture, as `#rrggbb`. */
  hex: string;
  /** What it was taken for; 0 for a cell without a drill. */
  line: number;
  /** What it might be instead; null where nothing else comes near. */
  other: number | null;
  /** 0…1. */
  doubt: number;
}

/** How sure a reading is. */
export interface Sureness {
  cells: number;
  /** Cells that should be looked at. */
  unsure: number;
  /** The least sure, the worst first. */
  least: DoubtfulCell[];
}

/** What tells how sure a cell is. */
export interface CellEvidence {
  /** Share of the cell that has its colour. */
  agreement: number;
  /** ΔE00 to the colour that it was taken for; null where it belongs to none. */
  difference: number | null;
  /** ΔE00 to the next colour of the list; infinite where there is none. */
  next: number;
  /** In its part of the picture colours change within the cells, so that they seem to lie beside their place. */
  astray: boolean;
}

/** From this doubt on a cell is unsure. */
const UNSURE_FROM = 0.5;
const LEAST_SHOWN = 12;
/** Of cells that may be taken for the same other colour, only so many are shown, so that every kind of doubt is. */
const SHOWN_OF_A_PAIR = 3;
/** A cell of which less than this share has its colour is a guess; of which more than that, none. */
const AGREEMENT = { guess: 0.3, sure: 0.62 };
/** ΔE00 by which the next colour must be further away: below, either may be meant; above, only one. */
const MARGIN = { guess: 0.5, sure: 4.5 };

/** Doubt about a cell that seems to lie beside its place. */
const ASTRAY = 0.6;

/**
 * Doubt about a cell, 0…1: how little of it has its colour, or how near another colour of the list is.
 * Thresholds are ours, without a source; tried on drawn scans with noise, blur and JPEG.
 */
export function doubtOf({ agreement, difference, next, astray }: CellEvidence): number {
  if (difference === null) return 1;
  const ink = 1 - share(agreement, AGREEMENT.guess, AGREEMENT.sure);
  // The same colour to the last bit cannot be another, however near that is.
  const colour = difference === 0 ? 0 : 1 - share(next - difference, MARGIN.guess, MARGIN.sure);
  return Math.max(ink, colour, astray ? ASTRAY : 0);
}

function share(value: number, from: number, to: number): number {
  return Math.min(1, Math.max(0, (value - from) / (to - from)));
}

/** How sure a chart is as a whole. @param cellOf tells of each cell its doubt and what to show of it */
export function surenessOf(
  chart: Chart,
  cellOf: (cell: number) => Omit<DoubtfulCell, 'x' | 'y' | 'line'>,
): Sureness {
  let unsure = 0;
  const worst = new Map<string, DoubtfulCell[]>();
  for (let cell = 0; cell < chart.cells.length; cell++) {
    const told = cellOf(cell);
    if (told.doubt < UNSURE_FROM) continue;
    unsure++;
    const line = chart.cells[cell]!;
    const pair = `${line} ${told.other}`;
    const known = worst.get(pair) ?? [];
    worst.set(pair, known);
    if (known.length === SHOWN_OF_A_PAIR && known.at(-1)!.doubt >= told.doubt) continue;
    known.push({ ...told, x: cell % chart.width, y: Math.floor(cell / chart.width), line });
    known.sort((a, b) => b.doubt - a.doubt);
    if (known.length > SHOWN_OF_A_PAIR) known.pop();
  }
  const least = [...worst.values()]
    .flat()
    .sort((a, b) => b.doubt - a.doubt)
    .slice(0, LEAST_SHOWN);
  return { cells: chart.cells.length, unsure, least };
}
