import type { LegendLine } from '../canvas/legend';
import { compareCodes } from '../checkin/codes';

/** A colour and the pot it lives in, pots counted from 1. */
export interface Pot {
  pot: number;
  line: LegendLine;
}

/** One pot a colour, numbered in natural order of the codes. */
export function potsInCodeOrder(legend: readonly LegendLine[]): Pot[] {
  return [...legend]
    .sort((a, b) => compareCodes(a.code, b.code) || a.line - b.line)
    .map((line, index) => ({ pot: index + 1, line }));
}
