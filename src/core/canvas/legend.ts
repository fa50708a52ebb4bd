import type { Finish } from '../colour/finish';

/** One colour of a kit, as its inventory sheet lists it. `line` counts from 1 and is the chart's cell value. */
export interface LegendLine {
  line: number;
  /** Position of the colour in this kit as printed; some bags carry only this. */
  keyNumber: string;
  /** Printed symbol; null where the sheet has none. */
  symbol: string | null;
  code: string;
  name: string;
  /** sRGB as `#rrggbb`; null where the sheet gives no colour. */
  hex: string | null;
  finish: Finish;
  neededDrills: number;
  /** Packets that the sheet says are in the kit. */
  packets: number;
  /** The symbol as the user drew it, for one that no font has: an SVG path in a box of 100 × 100, filled evenodd. */
  drawing?: string;
}

/** More lines than any kit has; keeps a wrong file from becoming a legend. */
export const MAX_LEGEND_LINES = 250;

/** What to show where the symbol should stand: the symbol, or the key number when there is none. */
export function symbolOrKey(line: Pick<LegendLine, 'symbol' | 'keyNumber'>): string {
  return line.symbol ?? line.keyNumber;
}
