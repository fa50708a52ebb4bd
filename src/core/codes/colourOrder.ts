import type { LegendLine } from '../canvas/legend';
import { relativeLuminance } from '../colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../colour/rgb';
import { compareCodes } from './codes';

/** Orders in which people keep their colours. */
export const COLOUR_ORDERS = ['code', 'key', 'frequency', 'dark', 'symbol'] as const;
export type ColourOrder = (typeof COLOUR_ORDERS)[number];

const light = (line: LegendLine) => relativeLuminance(hexToRgb(line.hex ?? UNKNOWN_COLOUR));

const COMPARE: Record<ColourOrder, (a: LegendLine, b: LegendLine) => number> = {
  code: (a, b) => compareCodes(a.code, b.code),
  key: (a, b) => compareCodes(a.keyNumber, b.keyNumber),
  frequency: (a, b) => b.neededDrills - a.neededDrills,
  dark: (a, b) => light(a) - light(b),
  symbol: (a, b) => compareCodes(a.symbol ?? '\uffff', b.symbol ?? '\uffff'),
};

/** The lines of a legend in an order; equal ones by code, then as on the sheet. */
export function inColourOrder(legend: readonly LegendLine[], order: ColourOrder): LegendLine[] {
  return [...legend].sort((a, b) => COMPARE[order](a, b) || compareCodes(a.code, b.code) || a.line - b.line);
}
