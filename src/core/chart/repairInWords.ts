import type { LegendLine } from '../canvas/legend';
import { placeOfCell } from '../cells/rect';
import { counted } from '../words/numbers';

/** What a change of the chart did and where: `3 squares set to 412, from column 5, row 2 on`. @param width of the chart */
export function repairInWords(
  change: { kind: 'repair' | 'finish'; cells: number; cell: number; from: number; to: number },
  legend: readonly LegendLine[],
  width: number,
): string {
  const code = (line: number) => legend.find((each) => each.line === line)?.code ?? 'no drill';
  if (change.kind === 'finish') {
    return `${counted(change.cells, 'drill')} of ${code(change.from)} became ${code(change.to)}`;
  }
  const { x, y } = placeOfCell(change.cell, width);
  const where =
    change.cells === 1 ? `at column ${x + 1}, row ${y + 1}` : `from column ${x + 1}, row ${y + 1} on`;
  return `${counted(change.cells, 'square')} set to ${code(change.to)}, ${where}`;
}
