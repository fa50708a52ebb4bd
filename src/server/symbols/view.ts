import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import type { CellRect, Chart } from '../../core/cells/chart';
import { forEachCell } from '../../core/cells/rect';
import { sectionAt } from '../../core/sections/blockGrid';
import { checkInWords } from '../../core/symbols/advice';
import {
  darkLines,
  type LikePair,
  likePairs,
  shadePairs,
  type Together,
  whereTogether,
} from '../../core/symbols/check';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { lidMarks } from '../../data/symbols';
import { canPrint } from '../print/fonts';
import { sectionsOf } from '../sections/view';
import type { Meeting, SymbolCheckView } from './contract';
import { symbolShapes } from './symbolShapes';

/** Comparing takes a moment, and a legend is asked about on several pages; the last few answers are kept. */
const kept = new Map<string, Promise<LikePair[]>>();
const KEEP = 8;

/** Pairs of symbols that are easily mixed up, the riskiest first. */
export function likePairsOf(legend: readonly LegendLine[]): Promise<LikePair[]> {
  const key = JSON.stringify(
    legend.map(({ line, keyNumber, symbol, hex, drawing }) => [line, keyNumber, symbol, hex, drawing]),
  );
  let answer = kept.get(key);
  if (!answer) {
    answer = symbolShapes(legend).then((shapes) => likePairs(legend, shapes));
    answer.catch(() => kept.delete(key));
    kept.set(key, answer);
    if (kept.size > KEEP) kept.delete(kept.keys().next().value!);
  }
  return answer;
}

function cellsIn(chart: Chart, rect: CellRect): number[] {
  const cells: number[] = [];
  forEachCell(chart, rect, (_, line) => cells.push(line));
  return cells;
}

export async function symbolCheckView(queries: Queries, canvas: Canvas): Promise<SymbolCheckView> {
  const legend = await legendOf(queries, canvas.id);
  const chart = await chartOf(queries, canvas);
  const { sections } = await sectionsOf(queries, canvas);
  const met = (together: Together | null): Meeting | null =>
    together &&
    chart && {
      ...together,
      cells: cellsIn(chart, together),
      section:
        sectionAt(sections, together.x + together.width / 2, together.y + together.height / 2)?.number ??
        null,
    };
  const where = (lines: [number, number]) => met(chart && whereTogether(chart, lines));
  const pairs = await likePairsOf(legend);
  const shades = shadePairs(legend, chart);
  const unprintable: number[] = [];
  for (const line of legend) {
    if (line.drawing === undefined && line.symbol !== null && !(await canPrint(line.symbol)))
      unprintable.push(line.line);
  }
  const dark = darkLines(legend);
  return {
    pairs: pairs.map((pair) => ({ ...pair, where: where(pair.lines) })),
    shades: shades.map((pair) => ({ ...pair, where: where(pair.lines) })),
    dark,
    unprintable,
    marks: Object.fromEntries(await lidMarks(queries, canvas.id)),
    sentence: checkInWords(pairs.length, shades.length, dark.length),
  };
}
