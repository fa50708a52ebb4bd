import type { LegendLine } from '../../core/canvas/legend';
import type { CellRect, Chart } from '../../core/cells/chart';
import { forEachCell } from '../../core/cells/rect';
import { type Section, sectionAt } from '../../core/sections/section';
import { checkInWords } from '../../core/symbols/advice';
import {
  darkLines,
  type LikePair,
  likePairs,
  shadePairs,
  type Together,
  whereTogether,
} from '../../core/symbols/check';
import { unprintable } from '../print/outlines';
import type { Meeting, SymbolCheckView } from './contract';
import { symbolShapes } from './symbolShapes';

/** Pairs of symbols that are easily mixed up, the riskiest first. */
export async function lookAlikes(legend: readonly LegendLine[]): Promise<LikePair[]> {
  return likePairs(legend, await symbolShapes(legend));
}

/** Where two colours meet is looked up for so many pairs, the riskiest; nobody looks at hundreds. */
const MOST_MEETINGS = 100;

/** Everything about the symbols of a canvas that can go wrong, with where it does. @param chart null without one */
export async function checkSymbols({
  legend,
  chart,
  sections,
  pairs,
}: {
  legend: LegendLine[];
  chart: Chart | null;
  sections: readonly Section[];
  pairs: LikePair[];
}): Promise<Omit<SymbolCheckView, 'marks'>> {
  const where = (lines: [number, number], i: number) =>
    chart && i < MOST_MEETINGS ? meeting(chart, sections, whereTogether(chart, lines)) : null;
  const shades = shadePairs(legend, chart);
  const undrawn = legend.filter(({ drawing, symbol }) => drawing === undefined && symbol !== null);
  const lost = new Set(await unprintable(undrawn.map(({ symbol }) => symbol!)));
  const dark = darkLines(legend);
  return {
    // Those that meet on this canvas come first; the others are mixed up in the hand alone.
    pairs: pairs
      .map((pair, i) => ({ ...pair, where: where(pair.lines, i) }))
      .sort((a, b) => Number(b.where !== null) - Number(a.where !== null)),
    shades: shades.map((pair, i) => ({ ...pair, where: where(pair.lines, i) })),
    dark,
    unprintable: undrawn.filter(({ symbol }) => lost.has(symbol!)).map(({ line }) => line),
    sentence: checkInWords(pairs.length, shades.length, dark.length),
  };
}

function meeting(chart: Chart, sections: readonly Section[], together: Together | null): Meeting | null {
  if (!together) return null;
  const { x, y, width, height } = together;
  const section = sectionAt(sections, x + width / 2, y + height / 2)?.number ?? null;
  return { ...together, cells: cellsIn(chart, together), section };
}

function cellsIn(chart: Chart, rect: CellRect): number[] {
  const cells: number[] = [];
  forEachCell(chart, rect, (_, line) => cells.push(line));
  return cells;
}
