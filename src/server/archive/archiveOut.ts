import { createHash } from 'node:crypto';
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
import { ARCHIVE_TABLES, type ArchiveTable } from '../../core/archive/tables';
import type { Canvas } from '../../core/canvas/canvas';
import { isLaid } from '../../core/cells/bitmap';
import { archivedRows } from '../../data/archive';
import { bitmapOf } from '../../data/bench';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { chartParts, chartPng } from '../chart/chartOut';
import { zipped } from '../files/zip';

/** The file that describes all the others. */
export const DESCRIPTOR = 'datapackage.json';

/** A canvas with everything that belongs to it, as a ZIP that is a Data Package. */
export async function archiveOf(queries: Queries, canvas: Canvas, moment: Date): Promise<Uint8Array> {
  const files = new Map<string, { bytes: Uint8Array; table: ArchiveTable | null }>();
  const text = (table: ArchiveTable, rows: readonly ArchiveRow[]) =>
    files.set(fileOf(table), { bytes: Buffer.from(tableToCsv(table, rows)), table });
  for (const table of ARCHIVE_TABLES) {
    const rows = await archivedRows(queries, table, canvas.id);
    text(
      table,
      rows.map((row) => {
        if (!(row.photo instanceof Uint8Array)) return row;
        const path = `photos/${row.id as string}.jpg`;
        files.set(path, { bytes: row.photo, table: null });
        return { ...row, photo: path };
      }),
    );
  }
  const laid = await bitmapOf(queries, canvas.id, canvas.width * canvas.height);
  files.set('laid.png', { bytes: await laidPng(canvas, laid), table: null });
  if (await chartOf(queries, canvas)) {
    const { chart, legend } = await chartParts(queries, canvas);
    text(CHART_TABLE, chartToRows(chart));
    files.set('chart.png', { bytes: await chartPng(chart, legend), table: null });
  }
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

/** Digest of a file as a Data Package gives it. */
export function hashOf(bytes: Uint8Array): string {
  return `sha256:${createHash('sha256').update(bytes).digest('hex')}`;
}

/** What is laid, one pixel a cell: white is laid. */
async function laidPng({ width, height }: Canvas, laid: Uint8Array): Promise<Uint8Array> {
  const grey = Uint8Array.from({ length: width * height }, (_, cell) => (isLaid(laid, cell) ? 255 : 0));
  const image = sharp(grey, { raw: { width, height, channels: 1 } }).toColourspace('b-w');
  return new Uint8Array(await image.png({ compressionLevel: 9, palette: false }).toBuffer());
}
