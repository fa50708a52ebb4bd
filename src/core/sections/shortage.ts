import { type Bitmap, isLaid } from '../cells/bitmap';
import type { Chart } from '../cells/chart';
import { forEachCell } from '../cells/rect';
import type { Section } from './section';

/**
 * The section in which each colour would run out when sections are laid in the order of the work; 0 where it lasts to the end.
 * @param goodDrills per legend line the drills that can be laid in all (what is laid already included); index 0 unused
 * @returns section numbers per legend line
 */
export function sectionsWhereShort(
  chart: Chart,
  laid: Bitmap,
  sections: readonly Section[],
  goodDrills: readonly number[],
): number[] {
  const left = [...goodDrills];
  for (let cell = 0; cell < chart.cells.length; cell++) {
    if (isLaid(laid, cell)) left[chart.cells[cell]!]!--;
  }
  const short = goodDrills.map(() => 0);
  for (const section of [...sections].sort((a, b) => a.order - b.order)) {
    forEachCell(chart, section, (cell, line) => {
      if (line === 0 || line >= left.length || isLaid(laid, cell)) return;
      left[line]!--;
      if (left[line]! < 0 && short[line] === 0) short[line] = section.number;
    });
  }
  return short;
}
