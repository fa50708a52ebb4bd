import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { createWorker, OEM, PSM, type Worker } from 'tesseract.js';
import { tableOfCells } from '../../core/checkin/sheetTable';
import type { Corners } from '../../core/reading/homography';
import { faultInCorners } from '../../core/reading/homography';
import { doubtfulEntries } from '../../core/reading/sheetChecks';
import { type StraightTable, straightTable, tableGrid } from '../../core/reading/sheetGrid';
import { Refusal } from '../../core/refusal';
import type { TellProgress } from '../jobs/progress';
import type { SheetPhotoReading } from './contract';
import { readingPhoto } from './photo';

/** A photo of the printed sheet, and the outer corners of its table. */
export interface SheetPhotoInput {
  bytes: Uint8Array;
  corners: Corners;
  squares: number;
  packetDrills: number;
}

/** Height of a line of text when it is read, and white between lines: digits of 26 pixels or more read well. */
const LINE_PX = 44;
const GAP_PX = 20;
/** What is left out at the edges of a cell, where the rules are. */
const INSET = 0.08;
/** Lines of a column that are digits for the most part are read once more as nothing else. */
const DIGITS = 0.6;

interface ReadCell {
  text: string;
  confidence: number;
}

/**
 * Reads a printed colour list by OCR (Tesseract): straightened, cut at its rules, the cells of each column stacked as lines
 * of one picture, for single cells and whole pages are read far worse.
 * @throws Refusal where no table is seen
 */
export async function readSheetPhoto(
  { bytes, corners, squares, packetDrills }: SheetPhotoInput,
  report: TellProgress,
): Promise<SheetPhotoReading> {
  const ready = await readingPhoto({ bytes });
  const { data, info } = await sharp(ready.jpeg).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const photo = { width: info.width, height: info.height, data };
  const fault = faultInCorners(corners, photo);
  if (fault !== null) throw new Refusal(fault);
  const table = straightTable(photo, corners);
  const grid = tableGrid(table);
  const [columns, rows] = [grid.columns.length - 1, grid.rows.length - 1];
  const reader = await openReader();
  try {
    const cells: ReadCell[][] = Array.from({ length: rows }, () => []);
    for (let column = 0; column < columns; column++) {
      report(column, columns);
      const pictures = await Promise.all(
        Array.from({ length: rows }, (_, row) => cellPicture(table, grid, column, row, LINE_PX)),
      );
      const read = await readColumn(reader, pictures);
      for (const [row, cell] of read.entries()) cells[row]!.push(cell);
    }
    const sheet = tableOfCells(cells.map((row) => row.map(({ text }) => text)));
    // Rows of the table that stand in the list: those after the headings that were not left out.
    const places = sheet.rows.map(({ lineNumber }) => lineNumber - 1);
    const { entries, sum } = doubtfulEntries(
      sheet.rows,
      places.map((row) => (cells[row] ?? []).map(({ confidence }) => confidence)),
      sheet.mapping,
      { squares, packetDrills },
    );
    // Where lists stand side by side, a column of the list is not one of the paper.
    const alone = sheet.columns.length === columns;
    const doubtful = await Promise.all(
      entries.map(async (entry) => ({
        ...entry,
        picture: !alone
          ? null
          : `data:image/png;base64,${Buffer.from(
              await cellPng(table, grid, entry.column, places[entry.row]!),
            ).toString('base64')}`,
      })),
    );
    return { table: { ...sheet, sheets: [] }, doubtful, sum };
  } finally {
    await reader.terminate();
  }
}

function openReader(): Promise<Worker> {
  const data = dirname(createRequire(import.meta.url).resolve('@tesseract.js-data/eng/package.json'));
  // Nothing is fetched and nothing kept: the language lies beside the program.
  return createWorker('eng', OEM.LSTM_ONLY, {
    langPath: join(data, '4.0.0_best_int'),
    gzip: true,
    cacheMethod: 'none',
  });
}

async function readColumn(reader: Worker, pictures: readonly CellPicture[]): Promise<ReadCell[]> {
  const first = await readStack(reader, pictures, '');
  const digits = first.filter(({ text }) => /^[\dOoIl|SB., ]+$/.test(text) && /\d/.test(text)).length;
  if (digits < pictures.length * DIGITS) return first;
  const second = await readStack(reader, pictures, '0123456789');
  return first.map((cell, row) => {
    const other = second[row]!;
    // The heading of a column of numbers is no number.
    if (row === 0 && /[A-Za-z]{2}/.test(cell.text)) return cell;
    const plain = cell.text.replace(/[\s.,]/g, '');
    return plain === other.text
      ? { text: other.text, confidence: Math.max(cell.confidence, other.confidence) }
      : { text: other.text, confidence: Math.min(60, other.confidence) };
  });
}

/** Reads pictures stacked as lines of one. @param only the signs that there are; empty for all */
async function readStack(
  reader: Worker,
  pictures: readonly CellPicture[],
  only: string,
): Promise<ReadCell[]> {
  const pitch = LINE_PX + GAP_PX;
  const width = pictures.reduce((most, picture) => Math.max(most, picture.width), 1) + 2 * GAP_PX;
  const stack = await sharp({
    create: { width, height: pictures.length * pitch + GAP_PX, channels: 3, background: '#ffffff' },
  })
    .composite(
      pictures.map(({ png }, i) => ({ input: Buffer.from(png), left: GAP_PX, top: GAP_PX + i * pitch })),
    )
    .png()
    .toBuffer();
  await reader.setParameters({
    tessedit_pageseg_mode: PSM.SINGLE_BLOCK,
    tessedit_char_whitelist: only,
    user_defined_dpi: '150',
  });
  const { data } = await reader.recognize(stack, {}, { blocks: true, text: false });
  const read: ReadCell[] = pictures.map(() => ({ text: '', confidence: 0 }));
  for (const block of data.blocks ?? [])
    for (const paragraph of block.paragraphs)
      for (const line of paragraph.lines) {
        const row = Math.floor(((line.bbox.y0 + line.bbox.y1) / 2 - GAP_PX / 2) / pitch);
        const cell = read[row];
        if (!cell) continue;
        const text = line.text.trim();
        read[row] = {
          text: cell.text === '' ? text : `${cell.text} ${text}`,
          confidence: cell.text === '' ? line.confidence : Math.min(cell.confidence, line.confidence),
        };
      }
  return read;
}

interface CellPicture {
  png: Uint8Array;
  width: number;
}

/** The bytes of a cell, without its rules. */
function cellPixels(
  { width, grey }: StraightTable,
  { columns, rows }: { columns: number[]; rows: number[] },
  column: number,
  row: number,
) {
  const [left, right] = [columns[column]!, columns[column + 1]!];
  const [top, bottom] = [rows[row]!, rows[row + 1]!];
  const inset = Math.max(2, Math.round((bottom - top) * INSET));
  const [x, y] = [Math.round(left) + inset, Math.round(top) + inset];
  const [w, h] = [Math.max(4, Math.round(right) - inset - x), Math.max(4, Math.round(bottom) - inset - y)];
  const pixels = new Uint8Array(w * h);
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const value = grey[(y + j) * width + x + i] ?? 1;
      // Paper is white, ink is black: what lies between is stretched.
      pixels[j * w + i] = Math.max(0, Math.min(255, ((value - 0.3) / 0.62) * 255));
    }
  return { pixels, width: w, height: h };
}

async function cellPicture(
  table: StraightTable,
  grid: { columns: number[]; rows: number[] },
  column: number,
  row: number,
  height: number,
): Promise<CellPicture> {
  const { pixels, width, height: h } = cellPixels(table, grid, column, row);
  const { data, info } = await sharp(pixels, { raw: { width, height: h, channels: 1 } })
    .resize({ height, kernel: 'lanczos3' })
    .png()
    .toBuffer({ resolveWithObject: true });
  return { png: data, width: info.width };
}

async function cellPng(
  table: StraightTable,
  grid: { columns: number[]; rows: number[] },
  column: number,
  row: number,
): Promise<Uint8Array> {
  return (await cellPicture(table, grid, column, row, 40)).png;
}
