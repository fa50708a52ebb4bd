import type { LegendLine } from '../canvas/legend';
import { looseCode } from '../codes/codes';

/**
 * Bags and chart cells point at lines by number. A corrected sheet may change counts, names and colours and may
 * add lines at its end, but a line that is in use must keep its code.
 * @param used line numbers that bags or chart cells point at
 * @returns what is wrong, as a sentence; null when the new sheet may take the old one's place
 */
export function faultInReplacement(
  before: readonly LegendLine[],
  after: readonly LegendLine[],
  used: ReadonlySet<number>,
): string | null {
  for (const line of before) {
    if (!used.has(line.line)) continue;
    const next = after[line.line - 1];
    if (next && looseCode(next.code) === looseCode(line.code)) continue;
    const becomes = next ? `would become ${next.code}` : 'would be gone';
    return (
      `Bags or the chart already use line ${line.line}, code ${line.code}, which ${becomes}. ` +
      'Keep the order of the codes and add new colours at the end, or start a new canvas with this sheet.'
    );
  }
  return null;
}
