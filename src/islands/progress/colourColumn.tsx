import type { Shape } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { Colour } from '../../ui/Chip';
import type { TableColumn } from '../../ui/DataTable';

/** The column that names the colour of a row. */
export function colourColumn(legend: readonly LegendLine[], shape: Shape): TableColumn<{ line: number }> {
  return {
    key: 'colour',
    header: 'Colour',
    value: (row) => ofLine(legend, row.line)!.code,
    show: (row) => <Colour line={ofLine(legend, row.line)!} shape={shape} size={32} />,
  };
}
