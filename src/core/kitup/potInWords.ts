import type { LegendLine } from '../canvas/legend';
import { counted, many } from '../words/numbers';
import type { PotEventKind } from './potLedger';

/** What became of a pot: `pot of 412 filled`. */
export function potInWords(
  event: { line: number; kind: PotEventKind; drills: number },
  legend: readonly LegendLine[],
): string {
  const pot = `pot of ${legend.find(({ line }) => line === event.line)?.code ?? 'a colour'}`;
  if (event.kind === 'fill') return `${pot} filled`;
  if (event.kind === 'take back') return `${pot} not filled after all`;
  if (event.kind === 'amount') return `leftover of ${pot.slice(7)} corrected to ${many(event.drills)}`;
  return event.drills > 0
    ? `${pot} put away, ${counted(event.drills, 'drill')} into the stash`
    : `${pot} put away`;
}
