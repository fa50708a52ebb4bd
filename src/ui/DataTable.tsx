import {
  type ColumnDef,
  createSortedRowModel,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import { usePrinting } from './usePrinting';

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
});

/** A column: the value it sorts by and, when that is not what is shown, how to show it. */
export interface TableColumn<Row> {
  key: string;
  header: string;
  value: (row: Row) => string | number;
  show?: (row: Row) => ReactNode;
  numeric?: boolean;
}

/** Of a long table with more rows than this, only those in sight are drawn; on paper all are. */
const ALL_DRAWN = 150;
const ROW_PX = 61;

/** A table that sorts by any column; every picture of the app has one for reading and for screen readers. */
export function DataTable<Row extends object>({
  caption,
  rows,
  columns,
  rowKey,
  long = false,
}: {
  caption: string;
  rows: Row[];
  columns: TableColumn<Row>[];
  rowKey: (row: Row) => string;
  /** It may have thousands of rows, and scrolls with the page. */
  long?: boolean;
}) {
  const definitions = columns.map(
    (column): ColumnDef<typeof features, Row, unknown> => ({
      id: column.key,
      header: column.header,
      accessorFn: column.value,
      sortFn: column.numeric ? 'basic' : 'alphanumeric',
      cell: ({ row }) => (column.show ? column.show(row.original) : column.value(row.original)),
    }),
  );
  const table = useTable({ features, columns: definitions, data: rows, getRowId: rowKey });
  const numeric = new Set(columns.filter((column) => column.numeric).map((column) => column.key));
  const { rows: sorted } = table.getRowModel();
  const isLong = long && sorted.length > ALL_DRAWN;
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  const printing = usePrinting();
  // biome-ignore lint/correctness/useExhaustiveDependencies: where the table begins is measured once it is long
  useLayoutEffect(() => {
    if (body.current) setTop(body.current.getBoundingClientRect().top + window.scrollY);
  }, [isLong]);
  const inSight = useWindowVirtualizer({
    count: sorted.length,
    estimateSize: () => ROW_PX,
    overscan: 12,
    scrollMargin: top,
    enabled: isLong,
  });
  const seen = isLong && !printing ? inSight.getVirtualItems() : null;
  const above = seen?.[0] ? seen[0].start - top : 0;
  const below = seen?.at(-1) ? inSight.getTotalSize() - (seen.at(-1)!.end - top) : 0;
  const drawn = seen ? seen.flatMap(({ index }) => sorted[index] ?? []) : sorted;
  return (
    <table className="table-plain" aria-rowcount={sorted.length + 1}>
      <caption className="sr-only">{caption}</caption>
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id}>
            {group.headers.map((header) => {
              const way = header.column.getIsSorted();
              return (
                <th
                  key={header.id}
                  aria-sort={way === 'asc' ? 'ascending' : way === 'desc' ? 'descending' : 'none'}
                  className={numeric.has(header.id) ? '!text-right' : ''}
                >
                  <button
                    type="button"
                    className="inline-flex min-h-11 items-center gap-1 font-semibold hover:text-accent"
                    onClick={header.column.getToggleSortingHandler()}
                  >
                    <span aria-hidden className={numeric.has(header.id) ? '' : 'order-last'}>
                      {way === 'asc' ? '↑' : way === 'desc' ? '↓' : ''}
                    </span>
                    <table.FlexRender header={header} />
                  </button>
                </th>
              );
            })}
          </tr>
        ))}
      </thead>
      <tbody ref={body}>
        {above > 0 && <tr style={{ height: above }} aria-hidden />}
        {drawn.map((row) => (
          <tr key={row.id} aria-rowindex={seen ? row.index + 2 : undefined}>
            {row.getAllCells().map((cell) => (
              <td key={cell.id} className={numeric.has(cell.column.id) ? 'number text-right' : ''}>
                <table.FlexRender cell={cell} />
              </td>
            ))}
          </tr>
        ))}
        {below > 0 && <tr style={{ height: below }} aria-hidden />}
      </tbody>
    </table>
  );
}
