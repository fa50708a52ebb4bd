import type { LegendLine } from '../canvas/legend';
import { counted } from '../words/numbers';
import type { BagRow } from './bagLedger';

/** What an entry of the bag ledger did: `a bag of 412 with 200 drills counted`. */
export function bagInWords(
  entry: Pick<BagRow, 'kind' | 'line' | 'label' | 'drills'>,
  legend: readonly LegendLine[],
): string {
  const code = legend.find(({ line }) => line === entry.line)?.code ?? entry.label;
  switch (entry.kind) {
    case 'assign':
      return `bag ${entry.label} taken for ${code}`;
    case 'change':
      return `a bag changed to ${code} with ${counted(entry.drills, 'drill')}`;
    case 'remove':
      return `a bag of ${code} with ${counted(entry.drills, 'drill')} removed`;
    default:
      return `a bag of ${code} with ${counted(entry.drills, 'drill')} counted`;
  }
}
