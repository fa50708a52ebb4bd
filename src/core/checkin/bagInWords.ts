import type { LegendLine } from '../canvas/legend';
import { counted } from '../words/numbers';
import type { BagRow } from './bagLedger';

/** What an entry of the bag ledger did: `a bag of 412 with 200 drills counted`. */
export function bagInWords(
  entry: Pick<BagRow, 'kind' | 'line' | 'label' | 'drills'>,
  legend: readonly LegendLine[],
): string {
  const code = legend.find(({ line }) => line === entry.line)?.code ?? entry.label;
  return entry.kind === 'assign'
    ? `bag ${entry.label} taken for ${code}`
    : `a bag of ${code} with ${counted(entry.drills, 'drill')} counted`;
}
