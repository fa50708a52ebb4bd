import { type LegendLine, symbolOrKey } from '../canvas/legend';
import type { CellPlace } from './rect';

/**
 * A square for the ear: where it is, what belongs there, and whether it is laid.
 * @param what its colour; undefined where no drill goes; null on a canvas without a chart
 * @param laid null where that is not shown
 * @param panel its place on its panel, where there are several
 * @example squareInWords({ x: 11, y: 3 }, line, false, 2) // 'Column 12, row 4: symbol A, 745 Rose, not laid, section 2'
 */
export function squareInWords(
  { x, y }: CellPlace,
  what: LegendLine | undefined | null,
  laid: boolean | null,
  section: number | null,
  panel: string | null = null,
): string {
  const facts: string[] = [];
  if (what === undefined) facts.push('no drill goes here');
  else if (what !== null) facts.push(`symbol ${symbolOrKey(what)}`, `${what.code} ${what.name}`.trim());
  if (what !== undefined && laid !== null) facts.push(laid ? 'laid' : 'not laid');
  if (section !== null) facts.push(`section ${section}`);
  if (panel !== null) facts.push(panel);
  return `Column ${x + 1}, row ${y + 1}${facts.length > 0 ? `: ${facts.join(', ')}` : ''}`;
}
