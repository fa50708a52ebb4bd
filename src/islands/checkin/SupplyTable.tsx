import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { lacks } from '../../core/checkin/lacking';
import { type LineSupply, verdictInWords } from '../../core/checkin/supply';
import type { Pot } from '../../core/codes/places';
import { many } from '../../core/words/numbers';
import { Colour } from '../../ui/Chip';
import { DataTable } from '../../ui/DataTable';
import { ScrollRegion } from '../../ui/ScrollRegion';

interface Row {
  inOrder: number;
  line: LegendLine;
  supply: LineSupply;
}

/** The same as the wall of bags, for reading line by line. */
export function SupplyTable({
  pots,
  supply,
  shape,
  onlyLacking,
}: {
  pots: Pot[];
  supply: LineSupply[];
  shape: Shape;
  onlyLacking: boolean;
}) {
  const rows = pots
    .map(({ line }, inOrder): Row => ({ inOrder, line, supply: ofLine(supply, line.line)! }))
    .filter((row) => !onlyLacking || lacks(row.supply));
  return (
    <ScrollRegion label="Every colour" className="min-h-0">
      <DataTable
        caption="Every colour"
        rows={rows}
        rowKey={(row) => String(row.line.line)}
        columns={[
          {
            key: 'code',
            header: 'Colour',
            value: (row) => row.inOrder,
            show: (row) => <Colour line={row.line} shape={shape} />,
          },
          {
            key: 'needed',
            header: 'Needed',
            numeric: true,
            value: (row) => row.supply.neededDrills,
            show: (row) => many(row.supply.neededDrills),
          },
          {
            key: 'supplied',
            header: 'Supplied',
            numeric: true,
            value: (row) => row.supply.suppliedDrills,
            show: (row) => many(row.supply.suppliedDrills),
          },
          {
            key: 'bags',
            header: 'Bags',
            numeric: true,
            value: (row) => row.supply.bags,
            show: (row) => `${row.supply.bags} of ${row.supply.expectedBags}`,
          },
          {
            key: 'chance',
            header: 'May run out',
            numeric: true,
            value: (row) => row.supply.chance,
            show: (row) => `${(row.supply.chance * 100).toFixed(1)} %`,
          },
          { key: 'verdict', header: 'Verdict', value: (row) => verdictInWords(row.supply.verdict) },
        ]}
      />
    </ScrollRegion>
  );
}
