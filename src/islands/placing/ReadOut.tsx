import type { Shape } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { countsByTip, readOut } from '../../core/placing/inWords';
import type { PlacingPlan } from '../../core/placing/plan';
import { many } from '../../core/words/numbers';
import { Colour } from '../../ui/Chip';
import { DataTable } from '../../ui/DataTable';

/** The plan as text: the bars of the colour in hand row by row, the tips, and all colours as a table. */
export function ReadOut({
  plan,
  legend,
  shape,
  line,
}: {
  plan: PlacingPlan;
  legend: readonly LegendLine[];
  shape: Shape;
  line: number | null;
}) {
  const colour = line === null ? undefined : ofLine(legend, line);
  const own = plan.placements.filter((each) => each.line === line);
  const { along, down } = readOut(own);
  return (
    <div className="p-3">
      {colour && own.length > 0 && (
        <>
          <h2 className="mb-1.5">
            <span translate="no" className="number">
              {colour.code}
            </span>
            , bar by bar
          </h2>
          <ol className="mb-4 columns-1 gap-6 md:columns-2">
            {along.map(({ number, words }) => (
              <li key={`row ${number}`}>
                <span className="font-semibold">Row {number}</span>, {words}
              </li>
            ))}
            {down.map(({ number, words }) => (
              <li key={`column ${number}`}>
                <span className="font-semibold">Column {number}</span>, {words}
              </li>
            ))}
          </ol>
        </>
      )}
      <h2>By tip</h2>
      <DataTable
        caption="Placements by tip"
        rows={countsByTip(plan.placements)}
        rowKey={({ tip }) => String(tip)}
        columns={[
          {
            key: 'tip',
            header: 'Tip',
            value: ({ tip }) => tip,
            show: ({ tip }) => (tip === 1 ? 'single placer' : `${tip}-tip`),
          },
          {
            key: 'placements',
            header: 'Placements',
            numeric: true,
            value: ({ placements }) => placements,
            show: ({ placements }) => many(placements),
          },
          {
            key: 'drills',
            header: 'Drills',
            numeric: true,
            value: ({ drills }) => drills,
            show: ({ drills }) => many(drills),
          },
        ]}
      />
      <h2 className="mt-4">By colour</h2>
      <DataTable
        caption="Placements by colour"
        rows={plan.colours[0]!}
        rowKey={(each) => String(each.line)}
        columns={[
          {
            key: 'colour',
            header: 'Colour',
            value: (each) => ofLine(legend, each.line)!.code,
            show: (each) => <Colour line={ofLine(legend, each.line)!} shape={shape} />,
          },
          { key: 'drills', header: 'Drills', numeric: true, value: (each) => each.drills },
          { key: 'placements', header: 'Placements', numeric: true, value: (each) => each.placements },
          { key: 'along', header: 'Along rows', numeric: true, value: (each) => each.along },
          { key: 'down', header: 'Down columns', numeric: true, value: (each) => each.down },
          { key: 'rows', header: 'Rows alone', numeric: true, value: (each) => each.rowsOnly },
          { key: 'columns', header: 'Columns alone', numeric: true, value: (each) => each.columnsOnly },
        ]}
      />
    </div>
  );
}
