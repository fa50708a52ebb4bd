import type { LegendLine } from '../canvas/legend';

/** Words by which a legend line is named in a grid: symbol before code before key number. */
export function wordsOfLegend(legend: readonly LegendLine[]): Map<string, number> {
  const words = new Map<string, number>();
  for (const line of legend) words.set(line.keyNumber, line.line);
  // Letter case tells symbols apart ("a" and "A"), codes never: those also match in lower case.
  for (const line of legend) words.set(line.code.toLowerCase(), line.line).set(line.code, line.line);
  for (const line of legend) if (line.symbol !== null) words.set(line.symbol, line.line);
  return words;
}
