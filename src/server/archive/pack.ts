import sharp from 'sharp';
import {
  type ArchiveRow,
  CHART_TABLE,
  chartToRows,
  dataPackage,
  fileOf,
  type PackagedFile,
  tableToCsv,
} from '../../core/archive/dataPackage';
import { DESCRIPTOR } from '../../core/archive/descriptor';
import { ARCHIVE_TABLES, type ArchiveTable } from '../../core/archive/tables';
import type { Canvas } from '../../core/canvas/canvas';
import { type Bitmap, isLaid } from '../../core/cells/bitmap';
import { type ChartParts, chartPng } from '../chart/chartFiles';
import { zipped } from '../files/zip';
import type { TellProgress } from '../jobs/progress';
import { hashOf } from './hash';

/** All that belongs to a canvas. */
export interface ArchivedCanvas {
  canvas: Canvas;
  /** Rows by table; a photo as its bytes. Those of the marks are in `marks`. */
  tables: ReadonlyMap<string, ArchiveRow[]>;
  /** Rows of the mark ledger as CSV without a header, in parts. */
  marks: readonly string[];
  laid: Bitmap;
  /** Null without a chart. */
  parts: ChartParts | null;
  moment: Date;
}

/** A canvas with everything that belongs to it, as a ZIP that is a Data Package. */
export async function packArchive(
  { canvas, tables, marks, laid, parts, moment }: ArchivedCanvas,
  report: TellProgress,
): Promise<Uint8Array> {
  const files = new Map<string, { bytes: Uint8Array; table: ArchiveTable | null }>();
  const text = (table: ArchiveTable, rows: readonly ArchiveRow[]) =>
    files.set(fileOf(table), { bytes: Buffer.from(tableToCsv(table, rows)), table });
  const steps = ARCHIVE_TABLES.length + 2;
  for (const [i, table] of ARCHIVE_TABLES.entries()) {
    report(i, steps);
    if (table.name === 'mark') {
      const csv = tableToCsv(table, []) + marks.join('');
      files.set(fileOf(table), { bytes: Buffer.from(csv), table });
      continue;
    }
    text(
      table,
      tables.get(table.name)!.map((row) => {
        if (!(row.photo instanceof Uint8Array)) return row;
        const path = `photos/${row.id as string}.jpg`;
        files.set(path, { bytes: row.photo, table: null });
        return { ...row, photo: path };
      }),
    );
  }
  files.set('laid.png', { bytes: await laidPng(canvas, laid), table: null });
  if (parts) {
    text(CHART_TABLE, chartToRows(parts.chart));
    files.set('chart.png', { bytes: await chartPng(parts.chart, parts.legend), table: null });
  }
  report(steps - 1, steps);
  const described = [...files].map(
    ([path, { bytes, table }]): PackagedFile => ({ path, bytes: bytes.length, hash: hashOf(bytes), table }),
  );
  const descriptor = JSON.stringify(dataPackage(canvas, moment.toISOString(), described), null, 2);
  return zipped(
    new Map<string, Uint8Array>([
      [DESCRIPTOR, Buffer.from(descriptor)],
      ...[...files].map(([path, { bytes }]) => [path, bytes] as const),
    ]),
    moment,
  );
}

/** What is laid, one pixel a cell: white is laid. */
async function laidPng({ width, height }: Canvas, laid: Uint8Array): Promise<Uint8Array> {
  const grey = Uint8Array.from({ length: width * height }, (_, cell) => (isLaid(laid, cell) ? 255 : 0));
  const image = sharp(grey, { raw: { width, height, channels: 1 } }).toColourspace('b-w');
  return new Uint8Array(await image.png({ compressionLevel: 9, palette: false }).toBuffer());
}
