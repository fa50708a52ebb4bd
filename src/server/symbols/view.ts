import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import type { LikePair } from '../../core/symbols/check';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { lidMarks } from '../../data/symbols';
import { inWorker } from '../jobs/pool';
import { sectionsOf } from '../sections/view';
import type { SymbolCheckView } from './contract';

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
    answer = inWorker('lookAlikes', legend);
    answer.catch(() => kept.delete(key));
    kept.set(key, answer);
    if (kept.size > KEEP) kept.delete(kept.keys().next().value!);
  }
  return answer;
}

export async function symbolCheckView(queries: Queries, canvas: Canvas): Promise<SymbolCheckView> {
  const legend = await legendOf(queries, canvas.id);
  const chart = await chartOf(queries, canvas);
  const { sections } = await sectionsOf(queries, canvas);
  const marks = Object.fromEntries(await lidMarks(queries, canvas.id));
  const pairs = await likePairsOf(legend);
  return { ...(await inWorker('checkSymbols', { legend, chart, sections, pairs })), marks };
}
