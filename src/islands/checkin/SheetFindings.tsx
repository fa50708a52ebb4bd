import type { SheetFinding } from '../../core/checkin/sheetSanity';
import { counted } from '../../core/words/numbers';

/** What on the sheet does not add up, each with its meaning. */
export function SheetFindings({ findings, open }: { findings: SheetFinding[]; open: boolean }) {
  if (findings.length === 0) return null;
  return (
    <details className="mb-3 border-l-4 border-alarm bg-paper px-3" open={open}>
      <summary className="min-h-11 py-2.5 font-semibold">
        The sheet does not quite add up: {counted(findings.length, 'finding')}
      </summary>
      <ul className="max-h-56 overflow-y-auto pb-2">
        {findings.map((finding) => (
          <li key={finding.sentence} className="mb-2">
            <strong className="font-semibold">{finding.sentence}</strong> {finding.meaning}
          </li>
        ))}
      </ul>
    </details>
  );
}
