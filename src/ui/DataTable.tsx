import {
  type ColumnDef,
  createSortedRowModel,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import type { ReactNode } from 'react';

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

/** A table that sorts by any column; every picture of the app has one for reading and for screen readers. */
export function DataTable<Row extends object>({
  caption,
  rows,
  columns,
  rowKey,
}: {
  caption: string;
  rows: Row[];
  columns: TableColumn<Row>[];
  rowKey: (row: Row) => string;
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
  return (
    <table className="table-plain">
      <caption className="sr-only">{caption}</caption>
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id}>
            {group.headers.map((header) => {
              const sorted = header.column.getIsSorted();
              return (
                <th
                  key={header.id}
                  aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                  className={numeric.has(header.id) ? '!text-right' : ''}
                >
                  <button
                    type="button"
                    className="inline-flex min-h-11 items-center gap-1 font-semibold hover:text-accent"
                    onClick={header.column.getToggleSortingHandler()}
                  >
                    <span aria-hidden className={numeric.has(header.id) ? '' : 'order-last'}>
                      {sorted === 'asc' ? '↑' : sorted === 'desc' ? '↓' : ''}
                    </span>
                    <table.FlexRender header={header} />
                  </button>
                </th>
              );
            })}
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => (
          <tr key={row.id}>
            {row.getAllCells().map((cell) => (
              <td key={cell.id} className={numeric.has(cell.column.id) ? 'number text-right' : ''}>
                <table.FlexRender cell={cell} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
